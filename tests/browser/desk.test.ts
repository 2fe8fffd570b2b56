/** What happens between people: two tabs on one cell, a page left open when a right goes, edits while a file comes in. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { PHONE, openHeld, signIn } from './people.ts'

const MOORINGS = '/bench/1/tables?table=101'

test('a cell is edited and taken back; two tabs that change one cell get both values shown', async ({ browser }) => {
	const one = await signIn(browser, 'Saskia Holm')
	await one.goto(MOORINGS)
	const two = await one.context().newPage()
	await two.goto(MOORINGS)
	const cell = (page: typeof one) =>
		page
			.getByRole('row', { name: /GS-003/ })
			.getByRole('gridcell')
			.nth(3)
	await expect(cell(one)).toHaveText('6.0 m')
	await expect(cell(two)).toHaveText('6.0 m')

	await two.evaluate(() => window.stop())
	await cell(two).dblclick()
	await two.keyboard.press('Control+A')
	await two.keyboard.type('7.5')

	await cell(one).dblclick()
	await one.keyboard.press('Control+A')
	await one.keyboard.type('6.5')
	await one.keyboard.press('Enter')
	await expect(cell(one)).toHaveText('6.5 m')

	await two.keyboard.press('Enter')
	await expect(two.getByRole('alert')).toContainText('Now there: 6.5 m. You typed: 7.5.')
	await two.getByRole('button', { name: 'Put mine in' }).click()
	await expect(cell(two)).toHaveText('7.5 m')
	await expect(cell(one)).toHaveText('7.5 m')

	await one.getByRole('grid').focus()
	await one.getByRole('button', { name: 'Undo' }).last().click()
	await expect(one.getByRole('alert')).toContainText('Not taken back')
})

test('a page left open loses the rows when the right goes, and finds them when it comes back', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	const diver = await signIn(browser, 'Tobiah Lunn', PHONE)
	await diver.goto('/app/1/inspections')
	await expect(diver.getByRole('listitem').first()).toContainText('GS-')
	await builder.goto('/bench/1/access?table=102')
	await expect(builder.getByRole('heading', { name: 'Who may see and change Inspections' })).toBeVisible()
	await builder.getByRole('button', { name: 'Remove line 1' }).click()
	await expect(builder.getByText(/7 lose some|8 lose some|people gain/)).toBeVisible()
	await builder.getByRole('button', { name: 'Save lines' }).click()
	await expect(diver.getByText('This screen is not there, or not for you to see.')).toBeVisible()
	await builder.goto('/bench/1/access?table=102')
	const typed = builder.getByLabel('Add a line by typing what it should do')
	await typed.fill('Divers may see and add rows where Mooring.Harbour = me.Harbour, all columns')
	await typed.press('Enter')
	await builder.getByRole('button', { name: 'Save lines' }).click()
	await expect(builder.getByText('What stands here is in force.')).toBeVisible()
	await diver.reload()
	await expect(diver.getByRole('listitem').first()).toContainText('GS-')
})

test('edits go on while a large file comes in, and a stop leaves nothing', async ({ browser }) => {
	const file = join(mkdtempSync(join(tmpdir(), 'tin-shed-csv-')), 'soundings.csv')
	const rows = Array.from(
		{ length: 600_000 },
		(_row, i) => `${i},S-${i},${(i % 97) / 10},2026-0${(i % 9) + 1}-1${i % 9},bed of sand and shell ${i % 50}`
	)
	writeFileSync(file, `no,sounding,depth,day,remark\n${rows.join('\n')}\n`)
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/sources')
	await builder.getByLabel('Choose a file').setInputFiles(file)
	await builder.getByRole('button', { name: 'Bring in 600,000 rows' }).click()
	const status = builder.getByRole('status').filter({ hasText: 'of 600,000 rows' })
	await expect(status).toBeVisible()
	const edited = await builder.evaluate(async () => {
		type Row = { id: string; cells: Record<string, unknown>; may: { change: number[] } }
		const page = (await (await fetch('/rows/100')).json()) as { rows: Row[] }
		const row = page.rows[0]
		const column = row?.may.change[0] ?? 0
		const cells = [{ column, value: row?.cells[`c${column}`] ?? null }]
		const body = JSON.stringify({ kind: 'change', row: row?.id, cells })
		const answer = await fetch('/rows/100', { method: 'POST', headers: { 'content-type': 'application/json' }, body })
		// Pressed at once, from inside the page: on a slow day all rows may be in before a word from outside arrives.
		const stop = [...document.querySelectorAll('button')].find((button) => button.textContent === 'Stop')
		stop?.click()
		return { status: answer.status, stopped: stop !== undefined }
	})
	expect(edited).toEqual({ status: 200, stopped: true })
	await expect(builder.getByText('Stopped. Nothing was brought in.')).toBeVisible()
	await builder.goto('/bench/1/tables')
	await expect(builder.getByRole('link', { name: /soundings/ })).toHaveCount(0)
})

test('a refused file leaves nothing behind and says why', async ({ browser }) => {
	const file = join(mkdtempSync(join(tmpdir(), 'tin-shed-bad-')), 'register.xlsx')
	writeFileSync(file, Buffer.alloc(400))
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/sources')
	await builder.getByLabel('Choose a file').setInputFiles(file)
	await expect(builder.getByRole('alert')).toContainText('register.xlsx says it is a workbook, but it is not')
})

test('signing in by hand: a wrong password is one sentence, the right one leads on', async ({ browser }) => {
	const page = await (await browser.newContext()).newPage()
	await page.goto('/waiting')
	await expect(page).toHaveURL(/sign-in\?then=%2Fwaiting/)
	await page.getByLabel('Email').fill('petra.nankivell@varrow.example')
	await page.getByLabel('Password').fill('not this')
	await page.getByRole('button', { name: 'Sign in' }).click()
	await expect(page.getByRole('alert')).toHaveText('This address and password do not go together.')
	await page.getByLabel('Password').fill('lantern on the quay')
	await page.getByRole('button', { name: 'Sign in' }).click()
	await expect(page).toHaveURL('/waiting')
	const cookie = (await page.context().cookies()).find((each) => each.name === 'tin_shed_session')
	expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' })
})

test('an earlier release is put back; staff see it the same minute', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/2/screens')
	// Whoever leaves a page before it has come to life leaves what they typed.
	await expect(builder.locator('#svelte-announcer')).toBeAttached()
	await builder.getByLabel('Title of the screen').fill('Money wanted')
	await builder.getByLabel('Title of the screen').blur()
	await builder.getByRole('link', { name: 'Check and release' }).click()
	await builder.getByRole('button', { name: 'Release as no. 2' }).click()
	await expect(builder.getByText('Release 2 is live.')).toBeVisible()
	const clerk = await signIn(browser, 'Corrie Ashdown')
	await clerk.goto('/app/2')
	await expect(clerk.getByRole('link', { name: 'Money wanted' }).first()).toBeVisible()
	await builder.getByRole('button', { name: 'Put back' }).click()
	await expect(builder.getByText('Release 1 is live again.')).toBeVisible()
	await expect(clerk.getByRole('link', { name: 'Requests' }).first()).toBeVisible()
})

test('axe finds nothing on the main views', async ({ browser }) => {
	// Every view looked through in turn, on a machine that may have other work.
	test.setTimeout(300_000)
	const builder = await signIn(browser, 'Saskia Holm')
	for (const path of [
		'/',
		'/bench/1/sources',
		'/bench/1/access?table=101',
		'/bench/1/routines',
		'/bench/1/release',
		'/bench/1/logbook',
		'/post',
		MOORINGS
	]) {
		await builder.goto(path)
		await expect(builder.getByRole('heading').first()).toBeVisible()
		const { violations } = await new AxeBuilder({ page: builder }).analyze()
		expect(violations.map((each) => `${path} ${each.id}: ${each.nodes[0]?.html.slice(0, 120)}`)).toEqual([])
	}
	const diver = await signIn(browser, 'Imke Dahl', PHONE)
	for (const path of ['/app/1/due', '/app/1/inspect', '/waiting']) {
		await diver.goto(path)
		const { violations } = await new AxeBuilder({ page: diver }).analyze()
		expect(violations.map((each) => `${path} ${each.id}: ${each.nodes[0]?.html.slice(0, 120)}`)).toEqual([])
	}
})

test('what is typed before the page has come to life is kept', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	const cascade = await openHeld(builder, '/bench/2/screens')
	await builder.getByLabel('Title of the screen').fill('Typed early')
	cascade()
	// From the change on it says that it is being saved; an earlier draft may have been ahead before.
	await expect(builder.getByRole('button', { name: 'Undo' }).first()).toBeEnabled()
	await expect(builder.getByText('Draft ahead of what staff use')).toBeVisible()
	await builder.reload()
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('Typed early')
	// Also where a link is followed at once.
	const again = await openHeld(builder, '/bench/2/screens')
	await builder.getByLabel('Title of the screen').fill('Typed and left')
	await builder.getByRole('link', { name: 'Routines' }).click()
	again()
	await builder.waitForURL('**/routines')
	await builder.goto('/bench/2/screens')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('Typed and left')
	await builder.context().close()
})

test('what is typed while the last of the scripts is on its way is kept, as it was typed last', async ({ browser }) => {
	const page = await (await browser.newContext()).newPage()
	const cascade = await openHeld(page, '/door/1', '**/_app/immutable/nodes/*.js')
	await page.getByLabel('Your name').fill('Linnet')
	// The first scripts have run once they can be imported a second time.
	await page.evaluate(async () => {
		const links = [...document.querySelectorAll<HTMLLinkElement>('link[rel=modulepreload]')]
		await Promise.all(links.filter(({ href }) => href.includes('/entry/')).map(({ href }) => import(href)))
	})
	await page.getByLabel('Your name').fill('Linnet Oakes')
	await page.getByLabel('Your email').fill('linnet.oakes@elsewhere.example')
	cascade()
	// It is there from the mounting on.
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await expect(page.getByLabel('Your name')).toHaveValue('Linnet Oakes')
	await expect(page.getByLabel('Your email')).toHaveValue('linnet.oakes@elsewhere.example')
	await page.context().close()
})

test('the browser asks before a page is left whose changes are still on their way', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/2/screens')
	const asks = () => builder.evaluate(() => !dispatchEvent(new Event('beforeunload', { cancelable: true })))
	let cascade = () => undefined as void
	const held = new Promise<void>((resolve) => (cascade = resolve))
	await builder.route('**/bench/2/draft', async (route) => {
		await held
		await route.continue()
	})
	const title = builder.getByLabel('Title of the screen')
	const before = await title.inputValue()
	await title.fill('Typed late')
	await title.press('Tab')
	await expect(builder.getByText('Saving…')).toBeVisible()
	expect(await asks()).toBe(true)
	cascade()
	await expect(builder.getByText('Draft ahead of what staff use')).toBeVisible()
	expect(await asks()).toBe(false)
	await title.fill(before)
	await title.press('Tab')
	await expect(builder.getByText('Saving…')).toBeHidden()
	await builder.context().close()
})

test('what is chosen and pressed before the page has come to life is done once it has', async ({ browser }) => {
	const steward = await signIn(browser, 'Ailith Brand')
	let cascade = await openHeld(steward, '/people?show=ways')
	await steward.getByLabel('For', { exact: true }).selectOption('domain')
	cascade()
	await expect(steward.getByLabel('Domain')).toBeVisible()
	await steward.unrouteAll()
	cascade = await openHeld(steward, '/people?show=teams')
	await steward.getByLabel('A new team').fill('Early birds')
	await steward.getByRole('button', { name: 'Add it' }).click()
	cascade()
	await expect(steward.getByRole('heading', { name: 'Early birds' })).toBeVisible()
	await steward.context().close()

	const builder = await signIn(browser, 'Saskia Holm')
	cascade = await openHeld(builder, '/bench/1/tables')
	await builder.getByRole('button', { name: 'Find' }).click()
	cascade()
	await expect(builder.getByLabel('Replace by')).toBeVisible()
	await builder.context().close()
})
