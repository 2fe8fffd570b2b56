/** A map: looked at, moved and drawn nearer by keys and by touch, by what is near; its ground from a builder's file. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { PHONE, signIn } from './people.ts'
import { write } from './screen-lines.ts'

test('a diver finds what is near, on the map and in words', async ({ browser }) => {
	const page = await signIn(browser, 'Imke Dahl', PHONE)
	await page.context().grantPermissions(['geolocation'])
	await page.context().setGeolocation({ latitude: 50.3159, longitude: -4.108 })
	await page.goto('/app/1/map')
	const map = page.getByRole('group', { name: /^Map of Moorings/ })
	await expect(map.locator('path.area').first()).toBeVisible()
	const { violations } = await new AxeBuilder({ page }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])

	// Signs that would lie over one another stand together; a tap draws them apart.
	const together = map.getByRole('button', { name: / together$/ })
	const before = await together.count()
	expect(before).toBeGreaterThan(0)
	const inSight = page.getByText(/^\d+ in sight$/)
	const all = Number.parseInt(await inSight.innerText(), 10)
	await together.first().click()
	await expect.poll(async () => Number.parseInt(await inSight.innerText(), 10)).toBeLessThan(all)
	await page.getByRole('button', { name: 'All', exact: true }).click()
	await expect(inSight).toHaveText(`${all} in sight`)

	await page.getByRole('button', { name: 'Near me' }).click()
	await expect(map.getByText('You are here')).toBeAttached()
	const far = await page.locator('.rows .far').allInnerTexts()
	const metres = far.map((text) => Number.parseFloat(text) * (text.endsWith('km') ? 1000 : 1))
	expect(metres.length).toBeGreaterThan(3)
	expect(metres).toEqual(metres.toSorted((a, b) => a - b))

	// By the keys it is moved and drawn nearer too.
	const scale = map.locator('.bar')
	const length = await scale.innerText()
	await map.focus()
	await page.keyboard.press('-')
	await page.keyboard.press('-')
	await page.keyboard.press('-')
	await expect(scale).not.toHaveText(length)
	await page.keyboard.press('ArrowUp')
	await page.locator('.rows a').first().click()
	await expect(page).toHaveURL(/\/app\/1\/sheet\?row=/)
	await page.context().close()
})

test('a builder draws a map on a ground of their own; what is no ground is refused with what to do', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/screens')
	await builder.getByRole('button', { name: '+ Screen' }).click()
	await write(builder, 'map of moorings')
	const frame = builder.frameLocator('iframe').first()
	const map = frame.getByRole('group', { name: /^Map of Moorings/ })
	await expect(map).toBeVisible()
	await expect(map.locator('path')).toHaveCount(0)
	// What a line may say besides stands on the line that is chosen.
	await builder.getByRole('group', { name: 'Line 1' }).getByRole('button', { name: 'Moorings' }).click()
	await builder.keyboard.press('Escape')
	await builder.getByRole('button', { name: 'on a ground…' }).click()
	const file = builder.getByLabel('The ground')
	const give = (name: string, text: string) =>
		file.setInputFiles({ name, mimeType: 'application/geo+json', buffer: Buffer.from(text) })
	await give('latitude-first.geojson', '{"type":"LineString","coordinates":[[50.3,-4.1],[-4.1,150.3]]}')
	await expect(builder.getByRole('alert')).toContainText('writes longitude, then latitude')
	const ring = [[-4.2, 50.29], [-4.05, 50.29], [-4.05, 50.4], [-4.2, 50.29]] // prettier-ignore
	await give('bay.geojson', JSON.stringify({ type: 'Polygon', coordinates: [ring] }))
	await expect(map.locator('path.area')).toHaveCount(1)
	await builder.getByRole('button', { name: 'Undo' }).click()
	await expect(map.locator('path')).toHaveCount(0)

	// Whoever has none takes the coasts of the world where the moorings lie.
	await builder.getByRole('button', { name: 'Take the coasts of the world' }).click()
	await expect(builder.getByRole('button', { name: 'Coasts of the world' })).toBeVisible()
	await expect(map.locator('path.area').first()).toBeAttached()
	await builder.context().close()
})

test('a harbour master puts the calls of the boat in order, by the mouse and by keys; a diver reads it and moves nothing', async ({
	browser
}) => {
	const page = await signIn(browser, 'Osric Vane')
	await page.goto('/app/1/calls')
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	const calls = page.locator('.stops ol > li')
	const names = () => calls.locator('a').allInnerTexts()
	await expect(calls).toHaveCount(5)
	await expect(page.getByText(/^5 calls, [\d.]+ km in straight lines$/)).toBeVisible()
	const [first = '', second = '', third = '', ...rest] = await names()
	// On the map each has its turn, and a line leads from one to the next.
	await expect(page.locator('.frame .route polyline')).toHaveAttribute(
		'points',
		/^[-\d.]+,[-\d.]+( [-\d.]+,[-\d.]+){4}$/
	)

	await calls.nth(0).dragTo(calls.nth(2))
	await expect(page.getByText(`Done: ${first} is call 2.`)).toBeVisible()
	await expect.poll(names).toEqual([second, first, third, ...rest])

	await page.getByRole('button', { name: `Show ${third} on the map` }).focus()
	await page.keyboard.press('Enter')
	await page.getByRole('button', { name: 'Earlier' }).click()
	await expect.poll(names).toEqual([second, third, first, ...rest])
	await page.getByRole('button', { name: `Show ${third} on the map` }).focus()
	await page.keyboard.press('Alt+ArrowDown')
	await expect.poll(names).toEqual([second, first, third, ...rest])

	// What is left out waits under the calls, to be put in again.
	await page.getByRole('button', { name: 'Leave out' }).click()
	await expect(calls).toHaveCount(4)
	await page.getByRole('button', { name: 'Add as call 5' }).first().click()
	await expect.poll(names).toEqual([second, first, ...rest, third])
	const { violations } = await new AxeBuilder({ page }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	await page.context().close()

	const diver = await signIn(browser, 'Bram Oyelaran', PHONE)
	await diver.goto('/app/1/calls')
	await expect(diver.locator('#svelte-announcer')).toBeAttached()
	const read = diver.locator('.stops ol > li')
	await expect(read.locator('a').first()).toHaveText(second)
	await read.first().getByRole('button').click()
	await expect(read.first()).toHaveClass(/chosen/)
	await expect(diver.getByRole('button', { name: 'Later' })).toHaveCount(0)
	await diver.context().close()
})

test('two fingers draw a map nearer', async ({ browser }) => {
	const page = await signIn(browser, 'Imke Dahl', PHONE)
	await page.goto('/app/1/map')
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	const map = page.getByRole('group', { name: /^Map of Moorings/ })
	const scale = map.locator('.bar')
	const before = await scale.innerText()
	const box = await map.boundingBox()
	const touch = await page.context().newCDPSession(page)
	const [x, y] = [(box?.x ?? 0) + 100, (box?.y ?? 0) + 60]
	// From the ends of the map, where no sign lies, and with the middle between them.
	const fingers = (apart: number) => [
		{ x: x - apart, y, id: 1 },
		{ x: x + apart, y, id: 2 }
	]
	await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: fingers(20) })
	await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: fingers(90) })
	await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
	await expect(scale).not.toHaveText(before)
	await page.context().close()
})
