/** Screens as a builder writes them and as staff use them: lines within lines, lists that are found in, dates, what belongs to a row. */
import { readFile } from 'node:fs/promises'
import { expect, test, type Page } from '@playwright/test'
import { numbersOfPeople, signInAs } from './asking.ts'
import { PHONE, signIn } from './people.ts'
import { write } from './screen-lines.ts'

const sentences = (page: Page) => page.locator('.ledger .sentence').allInnerTexts()
const words = (texts: readonly string[]) => texts.map((text) => text.replace(/\s+/g, ' ').trim())

test('nested lines are written by the keyboard, shown at once, copied to another app and taken back', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.context().grantPermissions(['clipboard-read', 'clipboard-write'])
	await builder.goto('/bench/1/screens')
	await builder.getByRole('button', { name: '+ Screen' }).click()
	await write(
		builder,
		'Section Past and coming',
		'Text Good morning, **{me.Name}**.',
		'List of moorings where due soon, by Next due, soonest first; each row shows Code, Harbour, Next due; a tap opens Mooring sheet',
		"Mark overdue as past where 'Next due' < TODAY()"
	)
	// A text holds nothing: what comes after it goes where it stands, and a mark goes into the list before it.
	const levels = await builder
		.locator('.ledger .line')
		.evaluateAll((lines) => lines.map((line) => line.style.getPropertyValue('--level')))
	expect(levels).toEqual(['0', '1', '1', '2'])
	const frame = builder.frameLocator('iframe').first()
	await expect(frame.getByText('Past and coming')).toBeVisible()
	await expect(frame.getByText('overdue').first()).toBeVisible()

	// Out of the section, and in again, by the keys.
	await builder.getByRole('group', { name: 'Line 3' }).focus()
	await builder.keyboard.press('Alt+ArrowLeft')
	await expect(builder.getByRole('group', { name: 'Line 3' })).toHaveCSS('--level', '0')
	await builder.getByRole('button', { name: 'Undo' }).click()
	await expect(builder.getByRole('group', { name: 'Line 3' })).toHaveCSS('--level', '1')

	const written = words(await sentences(builder))
	await builder.getByRole('group', { name: 'Line 1' }).focus()
	await builder.keyboard.press('Control+c')
	await expect(builder.getByText('Copied as text.')).toBeVisible()
	await builder.goto('/bench/2/screens')
	await builder.getByRole('button', { name: '+ Screen' }).click()
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('New screen')
	await builder.locator('main, body').first().press('Control+v')
	// The sheet that a tap opens is none of this app's.
	await expect(builder.getByText('1 line pasted. There is no screen "Mooring sheet".')).toBeVisible()
	expect(words(await sentences(builder)).map((text) => text.replace(/a tap opens .*/, ''))).toEqual(
		written.map((text) => text.replace(/a tap opens .*/, ''))
	)
	await builder.getByRole('button', { name: 'Undo' }).click()
	await builder.getByRole('button', { name: 'Undo' }).click()
	await expect(builder.locator('.ledger .sentence')).not.toHaveCount(0)
	await builder.context().close()
})

test('a list is found in and narrowed down, and a reload shows the same', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/app/1/all')
	await builder.getByPlaceholder('Look for…').fill('vq-00')
	await expect(builder.getByText('9 moorings found')).toBeVisible()
	// In the fragment, which no log holds.
	expect(new URL(builder.url()).search).not.toContain('vq-00')
	await expect(builder).toHaveURL(/#f\.all-2=vq-00$/)
	await builder.getByRole('button', { name: 'every type' }).click()
	await builder.getByRole('button', { name: /^Trot/ }).click()
	await expect(builder).toHaveURL(/f\.all-2\.\d+=Trot/)
	const codes = await builder.locator('li strong').allInnerTexts()
	expect(codes.length).toBeGreaterThan(0)
	await builder.getByRole('button', { name: 'Show all again' }).click()
	await expect(builder.getByText('264 moorings')).toBeVisible()
	await builder.goBack()
	await builder.context().close()
})

test('whoever has scrolled keeps their place while somebody else works', async ({ browser }) => {
	const clerk = await signIn(browser, 'Saskia Holm')
	await clerk.goto('/app/1/all')
	await clerk.getByRole('button', { name: 'Show more' }).click()
	await expect(clerk.locator('.rows li')).toHaveCount(100)
	const last = clerk.locator('.rows li').nth(99)
	await last.scrollIntoViewIfNeeded()
	const before = await clerk.evaluate(() => scrollY)
	const name = await last.locator('strong').innerText()
	// Somebody else changes a cell of the first row.
	const numbers = numbersOfPeople()
	const builder = await signInAs({ name: 'Saskia Holm' }, numbers.get('Saskia Holm') ?? 0)
	const href = await clerk.locator('.rows li a').first().getAttribute('href')
	const row = new URL(href ?? '', 'http://x').searchParams.get('row') ?? ''
	const columns = (await (await builder.get(`/rows/101?row=${row}`)).json()) as {
		rows: { cells: Record<string, unknown> }[]
	}
	const [holder] = Object.entries(columns.rows[0]?.cells ?? {}).filter(([, value]) => value === 'Trot' || value === 'Swinging' || value === 'Pontoon' || value === 'Drying') // prettier-ignore
	const read = clerk.waitForResponse((response) => response.url().endsWith('/all/lines') && response.ok())
	const column = Number(holder?.[0].slice(1))
	const changed = await builder.post('/rows/101', {
		data: { kind: 'change', row, cells: [{ column, value: holder?.[1] === 'Trot' ? 'Drying' : 'Trot' }] }
	})
	expect(changed.status(), await changed.text()).toBe(200)
	// Of the hundred only that one is sent.
	const sent = await (await read).text()
	expect([sent.length < 5_000, sent.split('"cells"').length]).toEqual([true, 2])
	await expect(clerk.locator('.rows li').first()).toContainText(holder?.[1] === 'Trot' ? 'Drying' : 'Trot')
	await expect(clerk.locator('.rows li')).toHaveCount(100)
	expect(await clerk.evaluate(() => scrollY)).toBe(before)
	expect(await last.locator('strong').innerText()).toBe(name)
	await builder.dispose()
	await clerk.context().close()
})

test('a sheet shows what belongs to its row, and one thing is done from the list', async ({ browser }) => {
	const diver = await signIn(browser, 'Imke Dahl', PHONE)
	await diver.goto('/app/1')
	const first = diver.locator('.rows li').first()
	const code = await first.locator('strong').innerText()
	await first.getByRole('link').click()
	await expect(diver.getByRole('heading', { name: 'Its inspections' })).toBeVisible()
	await expect(diver.locator('[data-line="sheet-4"] .rows li').first()).toBeVisible()
	await diver.goto('/app/1')
	await diver.getByRole('button', { name: `Do something with ${code}` }).click()
	await diver.getByRole('button', { name: `Looked at today: ${code}` }).click()
	await expect(diver.locator('.rows li strong', { hasText: code })).toHaveCount(0)
	await diver.context().close()
})

test('a date is typed and shown day first under any browser, stepped, and chosen by the keys', async ({ browser }) => {
	const context = await browser.newContext({ locale: 'en-US', viewport: PHONE })
	const diver = await context.newPage()
	await diver.goto('/sign-in')
	await diver.getByRole('button', { name: 'Imke Dahl', exact: true }).click()
	await diver.waitForURL((url) => url.pathname === '/')
	await diver.goto('/app/1/inspect')
	// Before it has come to life nothing answers a press.
	await expect(diver.locator('#svelte-announcer')).toBeAttached()
	const date = diver.getByLabel('Date')
	await date.fill('28/11/2026')
	await date.blur()
	await expect(date).toHaveValue('28/11/2026')
	await diver.getByRole('button', { name: 'A day later' }).first().click()
	await expect(date).toHaveValue('29/11/2026')
	await diver.getByRole('button', { name: 'Choose from a month' }).first().click()
	await diver.getByRole('button', { name: '29 Nov 2026', exact: true }).press('ArrowDown')
	await expect(diver.getByRole('button', { name: '6 Dec 2026', exact: true })).toBeFocused()
	await diver.keyboard.press('Enter')
	await expect(date).toHaveValue('06/12/2026')
	await date.fill('31/02/2026')
	await date.blur()
	await expect(date).toHaveValue('31/02/2026')
	await diver.reload()
	await expect(date).toHaveValue('31/02/2026')
	await context.close()
})

test('choosing a row changes what stands beside it, and a reload, a link and a file show the same', async ({
	browser
}) => {
	const manager = await signIn(browser, 'Jutta Carrow')
	await manager.goto('/app/1/harbours')
	await expect(manager.getByText('Choose one of harbours first.')).toBeVisible()
	await manager.getByRole('link', { name: /Ness Hythe/ }).click()
	const table = manager.getByRole('table')
	await expect(table.getByRole('link', { name: /^NH-/ }).first()).toBeVisible()
	await expect(manager.getByRole('link', { name: /Ness Hythe/ })).toHaveAttribute('aria-current', 'true')
	await manager.reload()
	const codes = await table.getByRole('link').allInnerTexts()
	expect(codes.every((code) => code.startsWith('NH-'))).toBe(true)
	const chosen = manager.url()

	const file = manager.getByText('Due there within four weeks').locator('..').locator('details')
	await file.getByText('Export').click()
	const download = manager.waitForEvent('download')
	await file.getByRole('link', { name: /CSV/ }).first().click()
	const lines = (await readFile((await (await download).path()) ?? '', 'utf8')).trim().split('\n')
	expect(lines.slice(1).map((line) => /NH-\d+/.exec(line)?.[0])).toEqual(codes)

	// A mooring opens beside the list, and the way back leads to the harbour that was chosen.
	await table.getByRole('link').first().click()
	await expect(manager.getByRole('heading', { level: 1, name: codes[0] ?? '' })).toBeVisible()
	await manager.context().close()

	// Whoever the screen is not for finds nothing behind the link.
	const diver = await signIn(browser, 'Imke Dahl')
	await diver.goto(chosen)
	await expect(diver.getByText('This screen is not there, or not for you to see.')).toBeVisible()
	await diver.context().close()
})

test('what was pressed is taken back at once, and later from what one did today', async ({ browser }) => {
	const diver = await signIn(browser, 'Nerys Ferreday')
	await diver.goto('/app/1')
	const row = diver.locator('li', { hasText: /NH-\d+/ }).first()
	const code = /NH-\d+/.exec(await row.innerText())?.[0] ?? ''
	const press = diver.getByRole('button', { name: `Looked at today: ${code}` })
	await press.click()
	const note = diver.getByRole('status').filter({ hasText: `Done: Looked at today, ${code}.` })
	await note.getByRole('button', { name: 'Undo' }).click()
	await expect(diver.getByText('Taken back.')).toBeVisible()
	await press.click()
	await expect(note).toBeVisible()

	await diver.goto('/today')
	const done = diver.getByRole('listitem').filter({ hasText: code })
	await expect(done).toHaveCount(2)
	await expect(done.nth(1)).toContainText('taken back')
	await done
		.first()
		.getByRole('button', { name: `Take back: ${code}` })
		.click()
	await expect(done.first()).toContainText('taken back')
	await expect(diver.getByRole('button', { name: /^Take back/ })).toHaveCount(0)
	await diver.context().close()
})
