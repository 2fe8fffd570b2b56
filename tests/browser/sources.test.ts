/** Files through the interface: into a table that is there, several sheets at once with their relation, and pasted rows. */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import Database from 'better-sqlite3'
import { openHeld, signIn } from './people.ts'

const folder = mkdtempSync(join(tmpdir(), 'tin-shed-sources-'))

test('a file goes into a table that is there, after a comparison; the second time there is nothing to do', async ({
	browser
}) => {
	const file = join(folder, 'Harbours now.csv')
	writeFileSync(file, 'Name,Note\nVarrow Quay,dredged in May\nWhelk Steps,new this year\n')
	const builder = await signIn(browser, 'Saskia Holm')
	const compare = async () => {
		await builder.goto('/bench/1/sources')
		await builder.getByLabel('Choose a file').setInputFiles(file)
		await builder.getByLabel('Where the rows go').selectOption({ label: 'Harbours' })
		await expect(builder.getByLabel('Column by which a row is known again')).toHaveValue(/\d+/)
		await builder.getByRole('button', { name: 'Compare with Harbours' }).click()
		await expect(builder.getByText('not in the file: stay as they are')).toBeVisible()
	}
	await compare()
	await expect(builder.getByText('Whelk Steps')).toBeVisible()
	await builder.getByRole('button', { name: 'Bring it into Harbours' }).click()
	await expect(builder.getByText('Harbours: 1 added, 0 changed, 0 taken out.')).toBeVisible()
	await builder.getByRole('link', { name: 'Open the table' }).click()
	await expect(builder.getByRole('gridcell', { name: 'Whelk Steps' })).toBeVisible()
	await compare()
	await expect(builder.getByRole('button', { name: 'Nothing to bring in' })).toBeDisabled()
	await builder.goto('/bench/1/sources')
	await builder
		.getByRole('row', { name: /Harbours now/ })
		.getByRole('button', { name: 'Put the rows back' })
		.click()
	await expect(builder.getByText('Harbours: 1 row put back as it was.')).toBeVisible()
	await expect(
		builder.getByRole('row', { name: /Harbours now/ }).getByRole('button', { name: 'Put the rows back' })
	).toHaveCount(0)
	await compare()
	await expect(builder.getByText('Whelk Steps')).toBeVisible()
})

test('a file none of whose columns goes into the table says so at once', async ({ browser }) => {
	const file = join(folder, 'Paints.csv')
	writeFileSync(file, 'Shade,Litres\nred lead,3\nsea grey,12\n')
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/sources')
	await builder.getByLabel('Choose a file').setInputFiles(file)
	await builder.getByLabel('Where the rows go').selectOption({ label: 'Harbours' })
	await expect(builder.getByRole('heading', { name: 'Nothing goes in yet' })).toBeVisible()
	await expect(builder.getByRole('button', { name: 'Compare with Harbours' })).toBeDisabled()
	await builder.context().close()
})

test('a table without a column of its own for each row is shared by a proposed line, and known again by two columns', async ({
	browser
}) => {
	const counts = ['North', 'South'].flatMap((berth) => [1, 2, 3].map((day) => `${berth},2026-03-0${day},${day + 2}`))
	const first = join(folder, 'Berth counts.csv')
	const later = join(folder, 'Berth counts later.csv')
	writeFileSync(first, `Berth,Day,Boats\n${counts.join('\n')}\n`)
	writeFileSync(later, `Berth,Day,Boats\n${counts.slice(0, 5).join('\n')}\nSouth,2026-03-03,9\nSouth,2026-03-04,4\n`)
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/sources')
	await builder.getByLabel('Choose a file').setInputFiles(first)
	await builder.getByRole('button', { name: 'Bring in 6 rows' }).click()
	await expect(builder.getByRole('link', { name: 'Open the table' })).toBeVisible()

	await builder.goto('/bench/1/access')
	await builder.getByRole('link', { name: 'Berth counts' }).click()
	const take = builder.getByRole('button', { name: 'Take: Every row, for a role of your choice' })
	await expect(take).toBeDisabled()
	const role = builder.getByRole('region', { name: 'Nobody but its keepers' }).getByRole('combobox')
	await role.selectOption({ label: 'Divers' })
	await take.click()
	await builder.getByRole('button', { name: 'Save lines' }).click()
	await expect(builder.getByText('What stands here is in force.')).toBeVisible()
	await expect(builder.getByRole('heading', { name: 'Nobody but its keepers sees this table yet' })).toHaveCount(0)

	await builder.goto('/bench/1/sources')
	await builder.getByLabel('Choose a file').setInputFiles(later)
	await builder.getByLabel('Where the rows go').selectOption({ label: 'Berth counts' })
	await expect(builder.getByLabel('Further column by which a row is known again').first()).toHaveValue(/\d+/)
	await builder.getByRole('button', { name: 'Compare with Berth counts' }).click()
	await expect(builder.getByRole('row', { name: 'South · 3 Mar 2026 Boats 5 9' })).toBeVisible()
	await expect(builder.getByText('South · 4 Mar 2026')).toBeVisible()
	await builder.getByRole('button', { name: 'Bring it into Berth counts' }).click()
	await expect(builder.getByText('Berth counts: 1 added, 1 changed, 0 taken out.')).toBeVisible()
})

test('amounts with more than two decimals are asked about; what nobody asks is told apart from it', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/sources')
	await builder.getByLabel('Choose a file').setInputFiles('tests/checks/workbooks/moorings.xlsx')
	await expect(builder.getByText('1 thing to settle')).toBeVisible()
	const asked = builder.getByRole('group', { name: 'To pay' })
	await expect(asked).toContainText('holds 10 amounts with more than two decimals')
	await expect(asked.getByRole('radio', { name: 'Keep every digit: decimals in £' })).toBeChecked()
	await asked.getByRole('radio', { name: 'Money: round them to two decimals' }).check()
	await expect(builder.getByRole('group', { name: 'Rows that are left out' })).toContainText(
		'Row 29 looks like a total'
	)
	await builder.getByLabel('Name of the table').fill('Register of moorings')
	await builder.getByRole('button', { name: 'Bring in 24 rows' }).click()
	await builder.getByRole('link', { name: 'Open the table' }).click()
	const row = builder.getByRole('row', { name: /NH-003/ })
	await expect(row).toContainText('£306.38')
	await expect(row).toContainText('5 %')
})

test('all tables of a database come in at once; its foreign keys are references, a further relation is offered', async ({
	browser
}) => {
	const file = join(folder, 'stores.db')
	const db = new Database(file)
	db.exec(`
		CREATE TABLE lockers (number INTEGER PRIMARY KEY, harbour TEXT);
		CREATE TABLE lettings (slip TEXT PRIMARY KEY, locker INTEGER REFERENCES lockers (number), spare INTEGER, crew TEXT);
		INSERT INTO lockers VALUES (11, 'Ness Hythe'), (12, 'Ness Hythe'), (13, 'Gull Stair');
		INSERT INTO lettings VALUES ('A', 11, 12, 'Dunlin'), ('B', 12, 13, 'Petrel'), ('C', 13, 11, 'Knot'), ('D', 11, 12, 'Smew');`)
	db.close()
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/sources')
	await builder.getByLabel('Choose a file').setInputFiles(file)
	await builder.getByRole('checkbox', { name: 'lockers' }).check()
	await builder.getByRole('button', { name: 'Bring in 4 rows' }).click()
	await expect(builder.getByText('lockers: 3 rows are in.')).toBeVisible()
	await expect(builder.getByText('spare of lettings names rows of lockers')).toBeVisible()
	await expect(builder.getByText('locker of lettings names rows of lockers')).toHaveCount(0)
	await builder.getByRole('button', { name: 'Make it a reference: spare to lockers' }).click()
	await expect(builder.getByText('spare of lettings names rows of lockers')).toHaveCount(0)
	await builder.getByRole('link', { name: 'Open the table' }).click()
	for (const column of [/^locker/, /^spare/])
		await expect(builder.getByRole('columnheader', { name: column })).toContainText('→ lockers')
})

test('rows copied from a spreadsheet are pasted as a source', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/sources')
	await expect(builder.locator('#svelte-announcer')).toBeAttached()
	await builder.getByPlaceholder('Paste here').evaluate((box) => {
		const data = new DataTransfer()
		data.setData('text/plain', 'Buoy\tColour\nNorth bar\tgreen\nSouth bar\tred\n')
		box.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
	})
	await expect(builder.getByRole('heading', { name: 'Pasted rows.tsv' })).toBeVisible()
	await expect(builder.getByRole('button', { name: 'Bring in 2 rows' })).toBeVisible()
})

test('addresses of pictures are tried by the browser, those that do not open are listed, the rest is copied', async ({
	browser
}) => {
	const asked: string[] = []
	const dot = Buffer.from(
		'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
		'base64'
	)
	// Somebody else's server: one picture may be copied, one only shown, one is not there.
	const elsewhere = createServer((request, response) => {
		asked.push(`${request.headers['user-agent']?.includes('Mozilla') ? 'browser' : 'server'} ${request.url}`)
		expect(request.headers.referer).toBeUndefined()
		const picture = { 'content-type': 'image/png' }
		if (request.url === '/open.png')
			response.writeHead(200, { ...picture, 'access-control-allow-origin': '*' }).end(dot)
		else if (request.url === '/shut.png') response.writeHead(200, picture).end(dot)
		else response.writeHead(404).end()
	})
	await new Promise<void>((resolve) => elsewhere.listen(0, '127.0.0.1', resolve))
	const at = `http://127.0.0.1:${(elsewhere.address() as AddressInfo).port}`
	const data = `data:image/png;base64,${dot.toString('base64')}`
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/sources')
	const file = join(folder, 'pictures.csv')
	writeFileSync(
		file,
		`boat,where\nDunlin,${at}/open.png\nKnot,${at}/shut.png\nSmew,${at}/gone.png\nTern,"${data}"\nRuff,\n`
	)
	await builder.getByLabel('Choose a file').setInputFiles(file)
	await builder.getByRole('button', { name: 'Bring in 5 rows' }).click()
	await builder.getByRole('link', { name: 'Open the table' }).click()
	// At once, before the rows are there; the page of the file has a heading of this name too.
	await builder.getByRole('grid').getByRole('button', { name: 'where' }).click()
	await builder.getByRole('button', { name: 'Open its card' }).click()
	expect(asked).toEqual([])
	await builder.getByRole('link', { name: 'Try it as addresses of pictures' }).click()
	await builder.getByRole('button', { name: 'Try the addresses' }).click()
	await expect(builder.getByText('3 open, 1 do not.')).toBeVisible()
	await expect(builder.getByRole('row', { name: /Smew/ })).toContainText('gone.png')
	await expect(builder.getByText('1 row has no address.')).toBeVisible()
	await builder.getByRole('button', { name: 'Copy 3 pictures' }).click()
	await expect(builder.getByText('2 copied into the workspace.')).toBeVisible()
	await expect(builder.getByRole('row', { name: /Knot/ })).toContainText('but not copied')
	expect(asked.every((each) => each.startsWith('browser'))).toBe(true)
	await builder.getByRole('link', { name: /^Back to/ }).click()
	await expect(builder.getByRole('columnheader', { name: /^Photo/ })).toBeVisible()
	await expect(builder.getByText('open.jpg')).toBeVisible()
	// Pages other than this one still load nothing from elsewhere.
	const policy = (await builder.request.get('/bench/1/tables')).headers()['content-security-policy']
	expect(policy).not.toContain('http:')
	elsewhere.close()
	await builder.context().close()
})

test('a file that is chosen, and rows that are pasted, before the page has come to life are taken all the same', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	let cascade = await openHeld(builder, '/bench/1/sources')
	const file = join(folder, 'early.csv')
	writeFileSync(file, 'boat,berth\nDunlin,A1\nKnot,A2\n')
	await builder.getByLabel('Choose a file').setInputFiles(file)
	cascade()
	await expect(builder.getByRole('heading', { name: 'early.csv' })).toBeVisible()
	cascade = await openHeld(builder, '/bench/1/sources')
	await builder.getByPlaceholder('Paste here').fill('Buoy\tColour\nNorth bar\tgreen\n')
	cascade()
	await expect(builder.getByRole('heading', { name: 'Pasted rows.tsv' })).toBeVisible()
	await builder.context().close()
})
