/** Figures and charts: written by a builder, read by who looks after a harbour, with a desk, a phone and the keyboard. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { PHONE, signIn } from './people.ts'
import { release, write } from './screen-lines.ts'

const violationsOf = async (page: Page) =>
	(await new AxeBuilder({ page }).analyze()).violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)

test('a harbour master reads figures and a chart, and comes to the rows that make them up', async ({ browser }) => {
	const page = await signIn(browser, 'Osric Vane')
	await page.goto('/app/1/overview')
	const due = page.getByRole('button', { name: /due within four weeks/ })
	const count = Number(await due.locator('.value').innerText())
	expect(count).toBeGreaterThan(0)
	await due.click()
	const rows = page.locator('.figure .rows li')
	await expect(rows).toHaveCount(Math.min(count, 50))
	await expect(page.getByText(/than in the month before|as many as in the month before/)).toBeVisible()

	const chart = page.getByRole('figure', { name: 'Inspections by month and verdict' })
	const bars = chart.locator('.bars button')
	await expect(bars.first()).toBeVisible()
	// Twelve months, or fewer: on the first day of a month nothing was inspected in it yet.
	const months = await bars.count()
	expect(months).toBeGreaterThan(8)
	// A bar says what it holds; its parts are in the table, and come to the same.
	const bar = bars.nth(months - 2)
	const says = String(await bar.getAttribute('aria-label'))
	const [, total = '', rest = ''] = /: (\d+), (.+)$/.exec(says) ?? []
	expect(rest.match(/\d+/g)?.reduce((sum, part) => sum + Number(part), 0)).toBe(Number(total))
	await bar.focus()
	await page.keyboard.press('Enter')
	await expect(chart.locator('.rows li')).toHaveCount(Math.min(Number(total), 50))
	expect(await violationsOf(page)).toEqual([])
	await chart.getByRole('button', { name: 'Show the table' }).click()
	await expect(chart.getByRole('row')).toHaveCount(months + 1)
	await expect(chart.getByRole('row').nth(months - 1)).toContainText(total)
	// As a picture, with the same words.
	await chart.getByText('Picture', { exact: true }).click()
	for (const [format, begins] of [
		['SVG', '<svg'],
		['PNG', 'PNG']
	] as const) {
		const file = page.waitForEvent('download')
		await chart.getByRole('button', { name: format, exact: true }).click()
		const path = await (await file).path()
		expect(readFileSync(path).subarray(0, 8).toString('latin1')).toContain(begins)
	}
	// A row behind opens its sheet.
	await page.locator('.figure .rows a').first().click()
	await expect(page).toHaveURL(/\/app\/1\/sheet\?row=/)
	await page.context().close()
})

test('a builder adds a chart that sets what a list goes by; staff press it on a phone', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/screens?screen=order')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('To order')
	await write(
		builder,
		'Figure short here showing the count from Stock where short and Harbour = me.Harbour; the aim is 0',
		'Chart of the sum of Worth from Stock where Harbour = me.Harbour, by Kind; over it stands Worth by kind; a press sets sort',
		'List of Stock where Harbour = me.Harbour and Kind = here.sort, by Item; each row shows Item, Kind; a tap opens nothing'
	)
	await release(builder, 3)
	await builder.context().close()

	const wim = await signIn(browser, 'Wim Pascoe-Reyes', PHONE)
	await wim.goto('/app/3/order')
	await expect(wim.getByRole('button', { name: /short here$/ })).toBeVisible()
	await expect(wim.getByText(/the aim is 0, \d+ over/)).toBeVisible()
	const chart = wim.getByRole('figure', { name: 'Worth by kind' })
	await expect(chart.locator('.bars button')).toHaveCount(8)
	await chart.getByRole('button', { name: /^Shackle: £/ }).click()
	await expect(wim).toHaveURL(/h\.sort=Shackle/)
	await expect(wim.getByText('7 stock')).toBeVisible()
	await expect(chart.getByRole('button', { name: /^Shackle/ })).toHaveAttribute('aria-pressed', 'true')
	// Pressed once more it lets go.
	await chart.getByRole('button', { name: /^Shackle/ }).click()
	await expect(wim).not.toHaveURL(/h\.sort/)
	expect(await wim.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true)
	await wim.context().close()
})

test('a builder shows bands, days and dots; who looks presses one and comes to its rows', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/screens?screen=order')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('To order')
	await write(
		builder,
		'Chart of the count from Stock where Harbour = me.Harbour, by In stock in bands of 10; over it stands How much lies there',
		'Scatter of Worth against In stock, from Stock where Harbour = me.Harbour; over it stands Worth against stock'
	)
	await release(builder, 3)
	await builder.context().close()

	const wim = await signIn(browser, 'Wim Pascoe-Reyes', PHONE)
	await wim.goto('/app/3/order')
	const bands = wim.getByRole('figure', { name: 'How much lies there' })
	const first = bands.locator('.bars button').first()
	const [, count = ''] = /^0–10: (\d+)$/.exec(String(await first.getAttribute('aria-label'))) ?? []
	await first.click()
	await expect(bands.locator('.rows li')).toHaveCount(Number(count))
	// Dots are for pointers; their table has a key for each.
	const dots = wim.getByRole('figure', { name: 'Worth against stock' })
	await dots.getByRole('button', { name: 'Show the table' }).click()
	await dots.locator('.words button').first().focus()
	await wim.keyboard.press('Enter')
	await expect(dots.locator('.rows li').first()).toBeVisible()
	expect(await violationsOf(wim)).toEqual([])
	expect(await wim.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true)
	await wim.context().close()

	const osric = await signIn(browser, 'Osric Vane')
	await osric.goto('/app/1/overview')
	const days = osric.getByRole('figure', { name: 'Inspections day by day' })
	const busy = days.locator('td button:not(.d0)').last()
	const says = String(await busy.getAttribute('aria-label'))
	await busy.click()
	await expect(days.locator('.rows li')).toHaveCount(Number(/: (\d+)$/.exec(says)?.[1]))
	await osric.getByRole('tab', { name: 'How chains wear' }).click()
	const wear = osric.getByRole('figure', { name: 'Wear of the chain against depth' })
	await wear.locator('.ground button').first().click()
	await expect(wear.locator('.rows a').first()).toBeVisible()
	expect(await violationsOf(osric)).toEqual([])
	for (const [name, figure] of [
		['How deep they lie', 'Moorings by depth and type'],
		['Day by day', 'Inspections day by day'],
		['How chains wear', 'Wear of the chain against depth']
	] as const) {
		await osric.getByRole('tab', { name }).click()
		const drawn = osric.getByRole('figure', { name: figure })
		await drawn.getByText('Picture', { exact: true }).click()
		const file = osric.waitForEvent('download')
		await drawn.getByRole('button', { name: 'SVG', exact: true }).click()
		expect(readFileSync(await (await file).path(), 'utf8')).toContain(`<title>${figure}</title>`)
	}
	await osric.context().close()
})
