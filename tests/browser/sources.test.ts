/** Files through the interface: into a table that is there, several sheets at once with their relation, and pasted rows. */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import Database from 'better-sqlite3'
import { signIn } from './people.ts'

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
	await builder.getByPlaceholder('Paste here').evaluate((box) => {
		const data = new DataTransfer()
		data.setData('text/plain', 'Buoy\tColour\nNorth bar\tgreen\nSouth bar\tred\n')
		box.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
	})
	await expect(builder.getByRole('heading', { name: 'Pasted rows.tsv' })).toBeVisible()
	await expect(builder.getByRole('button', { name: 'Bring in 2 rows' })).toBeVisible()
})
