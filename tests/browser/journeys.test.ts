/** The main jobs by one means alone: an app made with the keyboard, and an inspection by taps on a phone. */
import { expect, test, type Locator, type Page } from '@playwright/test'
import { signIn } from './people.ts'

/** More stops than any page has. */
const MOST_STOPS = 250

/** A line drawn on the surface for signatures, by touches alone: the page scrolls by none of them. */
async function signByFinger(page: Page): Promise<void> {
	const surface = page.locator('canvas')
	await surface.scrollIntoViewIfNeeded()
	const box = await surface.boundingBox()
	if (!box) throw new Error('Expected a surface to sign on')
	const finger = await page.context().newCDPSession(page)
	const at = (i: number) => [{ x: box.x + 20 + i * 8, y: box.y + 40 + Math.sin(i) * 20 }]
	const before = await page.evaluate(() => scrollY)
	await finger.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(0) })
	for (let i = 1; i <= 20; i++) await finger.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: at(i) })
	await finger.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
	expect(await page.evaluate(() => scrollY)).toBe(before)
}

/** Goes from stop to stop until one has the focus; nothing is pressed that a keyboard could not reach. */
async function reach(page: Page, wanted: Locator): Promise<void> {
	await expect(wanted).toBeVisible()
	for (let stop = 0; stop < MOST_STOPS; stop++) {
		if (await wanted.evaluate((element) => element === document.activeElement)) return
		await page.keyboard.press('Tab')
	}
	throw new Error(`No key leads to ${String(wanted)}`)
}

async function pressKey(page: Page, wanted: Locator, key = 'Enter'): Promise<void> {
	await reach(page, wanted)
	await page.keyboard.press(key)
}

async function typeInto(page: Page, wanted: Locator, text: string): Promise<void> {
	await reach(page, wanted)
	await page.keyboard.type(text)
}

test('from a spreadsheet to a released app with the keyboard alone', async ({ browser }) => {
	test.slow()
	const builder = await signIn(browser, 'Saskia Holm')
	await expect(builder.locator('#svelte-announcer')).toBeAttached()
	await pressKey(builder, builder.getByRole('link', { name: 'Start an app from a file or tables' }))
	await typeInto(builder, builder.getByLabel('What it is called'), 'Fire gear')
	await pressKey(builder, builder.getByRole('button', { name: 'Start the app' }))
	const rows = Array.from({ length: 12 }, (_row, i) => `FG-${i + 1},${['Hose', 'Pump'][i % 2]},2026-0${1 + (i % 9)}-11`)
	const chooser = builder.waitForEvent('filechooser')
	await pressKey(builder, builder.getByLabel('Choose a file'))
	const file = {
		name: 'Fire gear.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from(`Code,Kind,Test due\n${rows.join('\n')}\n`)
	}
	await (await chooser).setFiles(file)
	await pressKey(builder, builder.getByRole('button', { name: 'Bring in 12 rows' }))
	await pressKey(builder, builder.getByRole('button', { name: 'Make screens from it' }))
	await expect(builder.getByRole('navigation', { name: 'Screens' })).toContainText('Fire gear')
	const box = builder.getByLabel('Add a line by typing what it should do')
	await typeInto(builder, box, 'Text Tested once a year.')
	await builder.keyboard.press('Enter')
	await expect(box).toHaveValue('')

	await pressKey(builder, builder.getByRole('link', { name: /^3\s*Access/ }))
	await pressKey(builder, builder.getByRole('link', { name: 'Fire gear' }))
	await typeInto(
		builder,
		builder.getByRole('region', { name: 'Nobody but its keepers' }).getByRole('combobox'),
		'Harbour masters'
	)
	await pressKey(builder, builder.getByRole('button', { name: 'Take: Every row, for a role of your choice' }))
	await pressKey(builder, builder.getByRole('button', { name: 'Save lines' }))
	await expect(builder.getByText('What stands here is in force.')).toBeVisible()
	await pressKey(builder, builder.getByRole('link', { name: 'Check and release' }))
	await pressKey(builder, builder.getByRole('button', { name: 'Release as no. 1' }))
	await expect(builder.getByText('Release 1 is live.')).toBeVisible()
	await builder.context().close()

	const master = await signIn(browser, 'Osric Vane')
	await pressKey(
		master,
		master.getByRole('listitem').filter({ hasText: 'Fire gear' }).getByRole('link', { name: 'Open' })
	)
	await expect(master.getByText('12 fire gear')).toBeVisible()
	await master.context().close()
})

test('an inspection by taps on a phone: found, looked at, written and sent', async ({ browser }) => {
	const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
	const diver = await context.newPage()
	await diver.goto('/sign-in')
	await diver.getByRole('button', { name: 'Imke Dahl', exact: true }).tap()
	await diver.waitForURL((url) => url.pathname === '/')
	await diver.goto('/app/1/due')
	await expect(diver.locator('#svelte-announcer')).toBeAttached()
	const first = diver.locator('.rows li').first()
	const code = await first.locator('strong').innerText()
	await first.getByRole('link').tap()
	await expect(diver.getByRole('heading', { level: 1, name: code })).toBeVisible()
	await diver.goBack()
	await diver.getByRole('link', { name: 'New inspection' }).first().tap()
	const form = diver.getByRole('form')
	await expect(form).toBeVisible()
	await diver.getByLabel('Mooring').tap()
	await diver.keyboard.type(code.slice(0, 6))
	await diver.getByRole('option', { name: code }).tap()
	await diver.getByRole('button', { name: 'Watch' }).tap()
	await diver.getByLabel('Worn shackle').tap()
	await expect(diver.getByLabel('Worn shackle')).toBeChecked()
	await signByFinger(diver)
	// Every key of it is wide and high enough for a wet thumb (WCAG 2.2, 2.5.8 asks for 24; common practice in gloves is 44).
	// Fields for files are a point behind the words that are pressed.
	for (const key of await form.locator('button, label.btn').all()) {
		const box = await key.boundingBox()
		if (box) expect(Math.min(box.width, box.height), await key.innerText()).toBeGreaterThanOrEqual(24)
	}
	expect(await diver.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true)
	await diver.getByRole('button', { name: 'Send' }).tap()
	await expect(diver.locator('p.thanks')).toBeVisible()
	await context.close()
})
