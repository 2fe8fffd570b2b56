/** Pictures, films, a welcome, rows of buttons, marks and shared lines: written by a builder, used by staff. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { readFile } from 'node:fs/promises'
import { PNG } from 'pngjs'
import { PHONE, signIn } from './people.ts'
import { release, write } from './screen-lines.ts'

/** A picture of one colour, far larger than a screen needs. */
function plainPicture(): Buffer {
	const png = new PNG({ width: 2000, height: 1000 })
	for (let at = 0; at < png.data.length; at += 4) png.data.set([30, 110, 80, 255], at)
	return PNG.sync.write(png)
}

/** A second of film, as the browser itself records one. */
async function recordFilm(page: Page): Promise<Buffer> {
	const bytes = await page.evaluate(async () => {
		const canvas = document.createElement('canvas')
		canvas.width = 160
		canvas.height = 90
		const ink = canvas.getContext('2d')
		const recorder = new MediaRecorder(canvas.captureStream(10), { mimeType: 'video/webm' })
		const parts: Blob[] = []
		recorder.ondataavailable = ({ data }) => parts.push(data)
		const ended = new Promise((resolve) => (recorder.onstop = resolve))
		recorder.start()
		for (let frame = 0; frame < 10; frame++) {
			ink?.fillRect(frame * 16, 0, 16, 90)
			await new Promise((resolve) => setTimeout(resolve, 100))
		}
		recorder.stop()
		await ended
		return [...new Uint8Array(await new Blob(parts).arrayBuffer())]
	})
	return Buffer.from(bytes)
}

async function violationsOf(page: Page): Promise<string[]> {
	const { violations } = await new AxeBuilder({ page }).analyze()
	return violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)
}

test('a builder shows a picture, a film and a welcome; staff read them, and nothing is fetched before it is asked for', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/screens?screen=order')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('To order')
	await write(builder, 'Picture')
	await builder.getByRole('button', { name: 'Which picture', exact: true }).click()
	const chooser = builder.getByLabel('Which picture')
	// What is none by its content is refused, whatever it is called.
	await chooser.setInputFiles({ name: 'plan.png', mimeType: 'image/png', buffer: Buffer.from('no picture') })
	await expect(builder.getByRole('alert')).toContainText('no picture by its content')
	await chooser.setInputFiles({ name: 'plan.png', mimeType: 'image/png', buffer: plainPicture() })
	await expect(builder.getByRole('button', { name: 'plan.png' })).toBeVisible()
	await builder.getByRole('button', { name: 'Done' }).click()
	await builder.getByRole('button', { name: 'what is on it…' }).click()
	await builder.getByRole('textbox', { name: 'What is on it' }).fill('Where the shelves stand')
	await builder.keyboard.press('Enter')
	await write(builder, 'Video How to splice a rope')
	// What a line may say besides stands on the line that is chosen.
	await builder.getByRole('button', { name: 'How to splice a rope' }).click()
	await builder.getByRole('button', { name: 'from a file…' }).click()
	const film = { name: 'splice.webm', mimeType: 'video/webm', buffer: await recordFilm(builder) }
	await builder.getByLabel('The file that plays').setInputFiles(film)
	await expect(builder.getByRole('button', { name: 'splice.webm' })).toBeVisible()
	await builder.getByRole('button', { name: 'Done' }).click()
	await write(
		builder,
		'Video The tide tables, at https://tides.example/today',
		'Welcome, whose last key says Let us begin and opens All harbours, shown once to each person',
		'Welcome page Ordering, saying Tick what you have **ordered**, {me.Name}.',
		'Welcome page Counting, saying Count on Fridays.',
		'With "Rope" as kind'
	)
	await release(builder, 3)

	const wim = await signIn(browser, 'Wim Pascoe-Reyes', PHONE)
	const films: string[] = []
	wim.on('request', (request) => request.resourceType() === 'media' && films.push(request.url()))
	await wim.goto('/app/3/order')
	const picture = wim.getByRole('img', { name: 'Where the shelves stand' })
	await picture.scrollIntoViewIfNeeded()
	await expect(picture).toBeVisible()
	// Made no larger than a screen needs.
	await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(1600)
	await expect(wim.getByRole('link', { name: /The tide tables/ })).toContainText('opens tides.example in a new tab')
	expect(films).toEqual([])
	await wim.getByRole('button', { name: /How to splice a rope/ }).click()
	const player = wim.getByLabel('How to splice a rope')
	await expect.poll(() => player.evaluate((video: HTMLVideoElement) => video.readyState)).toBeGreaterThan(1)
	expect(films.length).toBeGreaterThan(0)
	await expect(wim.getByText('Tick what you have ordered, Wim Pascoe-Reyes.')).toBeVisible()
	await wim.getByRole('button', { name: 'Next' }).click()
	await expect(wim.getByText('Page 2 of 2')).toBeVisible()
	expect(await violationsOf(wim)).toEqual([])
	await wim.getByRole('button', { name: 'Let us begin' }).click()
	// It leads on with what it gives.
	await expect(wim.getByRole('combobox', { name: 'Kind' })).toHaveValue('Rope')
	await wim.goto('/app/3/order')
	await expect(wim.getByRole('button', { name: 'Read the welcome again' })).toBeVisible()
	await expect(wim.getByText('Tick what you have')).toBeHidden()

	// Of an app that is not theirs nobody gets a picture; nor anybody who is not signed in.
	const address = await picture.getAttribute('src')
	const corrie = await signIn(browser, 'Corrie Ashdown')
	expect((await corrie.request.get(String(address))).status()).toBe(404)
	expect((await corrie.request.get(String(address).replace('app=3', 'app=4'))).status()).toBe(404)
	expect((await corrie.request.get(String(address).replace('?app=3', ''))).status()).toBe(403)
	const stranger = await browser.newContext()
	expect((await stranger.request.get(String(address), { maxRedirects: 0 })).ok()).toBe(false)
	for (const { context } of [builder, wim, corrie].map((page) => ({ context: page.context() }))) await context.close()
	await stranger.close()
})

test('a clerk gives the moment and a mark at one press each, and takes both back', async ({ browser }) => {
	const corrie = await signIn(browser, 'Corrie Ashdown', { width: 820, height: 1180 })
	await corrie.goto('/app/4/visits')
	await corrie
		.getByRole('link', { name: /pontoon/ })
		.first()
		.click()
	await corrie.getByRole('button', { name: 'Gone now' }).click()
	await expect(corrie.getByText('Done: Gone now.')).toBeVisible()
	const mark = corrie.getByRole('group', { name: 'How the berth was left' })
	await mark.getByRole('button', { name: '4 of 5' }).click()
	await expect(mark).toContainText('4 of 5')
	await expect(mark.getByRole('button', { name: '4 of 5' })).toHaveAttribute('aria-pressed', 'true')
	expect(await violationsOf(corrie)).toEqual([])
	await corrie.getByRole('button', { name: 'Undo' }).click()
	await expect(mark).toContainText('not marked yet')
	await corrie.context().close()
})

test('what was taken today is counted on a row of its own, made at the first press', async ({ browser }) => {
	const hale = await signIn(browser, 'Hale Dunmore', PHONE)
	await hale.goto('/app/3/stock')
	await hale
		.getByRole('link', { name: /Chain 13 mm/ })
		.first()
		.click()
	const more = hale.getByRole('button', { name: 'Add 1 to Taken today' })
	await more.click()
	await expect(hale.getByText('Done: Taken today +1.')).toBeVisible()
	await more.click()
	const row = hale.locator('.tally').filter({ hasText: 'Taken today' })
	await expect(row.getByRole('strong')).toHaveText('2')
	await hale.getByText('What was taken, day by day').click()
	await expect(hale.getByRole('table').getByText('2', { exact: true }).first()).toBeVisible()
	await hale.context().close()
})

test('a list leaves as a file by a button of the screen, and shared lines stand on both screens', async ({
	browser
}) => {
	const hale = await signIn(browser, 'Hale Dunmore')
	await hale.goto('/app/3/order')
	const [file] = await Promise.all([
		hale.waitForEvent('download'),
		hale.getByRole('button', { name: 'As a workbook' }).click()
	])
	expect(file.suggestedFilename()).toMatch(/\.xlsx$/)
	expect((await readFile(await file.path())).subarray(0, 2).toString()).toBe('PK')
	await expect(hale.getByText('leave a note on the hatch, Hale Dunmore')).toBeVisible()
	await hale.goto('/app/3/stock')
	await expect(hale.getByText('leave a note on the hatch, Hale Dunmore')).toBeVisible()
	await hale.context().close()
})

test('a picture stands for an app, and its paint is proposed', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/2/release')
	const picture = { name: 'buoy.png', mimeType: 'image/png', buffer: plainPicture() }
	await builder.getByLabel('Its picture, in place of its letters').setInputFiles(picture)
	await builder.getByRole('button', { name: 'Take bottle, which goes with the picture' }).click()
	await expect(builder.getByRole('radio', { name: 'bottle' })).toBeChecked()
	await expect(builder.getByText('Saving…')).toBeHidden()
	await builder.reload()
	await builder.getByRole('button', { name: /^Release as no/ }).click()
	await expect(builder.getByText('is live.')).toBeVisible()
	const petra = await signIn(browser, 'Petra Nankivell')
	const manifest = (await (await petra.request.get('/app/2/manifest.webmanifest')).json()) as {
		icons: { src: string; sizes: string }[]
	}
	expect(manifest.icons[0]).toMatchObject({ src: '/app/2/icon.png?size=192', sizes: '192x192' })
	const icon = PNG.sync.read(await (await petra.request.get(String(manifest.icons[0]?.src))).body())
	expect([icon.width, icon.height]).toEqual([192, 192])
	await petra.context().close()
	await builder.context().close()
})
