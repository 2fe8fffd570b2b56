/** A calendar: looked at by month, week and day by day; moved by keys, by a mouse and by touch. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Locator, type Page } from '@playwright/test'
import { addDays, toDayNumber, weekdayOf, WEEKDAY_NAMES } from '../../src/lib/core/schedule/calendar.ts'
import { showDate } from '../../src/lib/core/table/show-times.ts'
import { PHONE, signIn } from './people.ts'
import { release, write } from './screen-lines.ts'

async function openWhen(page: Page): Promise<void> {
	await page.goto('/app/1/work')
	// Before it has come to life nothing answers a press.
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await page.getByRole('tab', { name: 'When' }).click()
}

/** The day on which an entry begins, as who hears the page is told: an ISO date. */
async function beginOf(entry: Locator): Promise<string> {
	const says = await entry.locator('.words .visually-hidden').first().innerText()
	return new Date(`${says.replace(/^\D*(\d+ \w+ \d+).*/s, '$1')} UTC`).toISOString().slice(0, 10)
}

test('a harbour master plans work: by month, by week, by keys and by the mouse', async ({ browser }) => {
	const page = await signIn(browser, 'Osric Vane')
	await openWhen(page)
	const title = page.getByRole('group', { name: /^Work orders, / })
	const now = new Date()
	await expect(title).toHaveAccessibleName(
		`Work orders, ${now.toLocaleDateString('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' })}`
	)
	const { violations } = await new AxeBuilder({ page }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])

	// A week alone, by its number; the address says which, so that a reload shows the same.
	// Not this week: from there no link leads back to it.
	const weeks = page.getByRole('link', { name: /^Week \d+ alone$/ })
	const week = now.getUTCDate() > 15 ? weeks.first() : weeks.last()
	const number = /\d+/.exec(String(await week.getAttribute('aria-label')))?.[0]
	await week.click()
	await expect(page.getByRole('heading', { name: new RegExp(`^Week ${number} of`) })).toBeVisible()
	await page.reload()
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await page.getByRole('tab', { name: 'When' }).click()
	await expect(page.getByRole('heading', { name: new RegExp(`^Week ${number} of`) })).toBeVisible()

	// By keys: the day is typed, and what came of it can be taken back.
	await page.getByRole('link', { name: 'Today' }).click()
	const entry = page.locator('.large .entry').first()
	const iso = await beginOf(entry)
	await entry.getByRole('button', { name: /^Move/ }).focus()
	await page.keyboard.press('Enter')
	const panel = page.getByRole('form', { name: /^Move / })
	await expect(panel.getByRole('textbox')).toBeFocused()
	await page.keyboard.press('Escape')
	await expect(panel).toBeHidden()
	await entry.getByRole('button', { name: /^Move/ }).press('Enter')
	await panel.getByRole('button', { name: 'A day later' }).click()
	await panel.getByRole('button', { name: 'Move', exact: true }).click()
	await expect(page.getByText(`${showDate(addDays(iso, 1) ?? '')}.`)).toContainText('Done: moved to')
	await page.getByRole('button', { name: 'Undo' }).click()
	await expect(page.getByText('Taken back.')).toBeVisible()

	// By the mouse, to another day of this week.
	const own = page.locator('.large .entry:not(.before)').first()
	const from = weekdayOf(toDayNumber(await beginOf(own)))
	const to = from === 3 ? 4 : 3
	const days = page.locator('.large .days').first()
	const box = await days.boundingBox()
	await own.dragTo(days, {
		sourcePosition: { x: 4, y: 6 },
		targetPosition: { x: (box?.width ?? 700) * ((to + 0.5) / 7), y: (box?.height ?? 200) - 12 }
	})
	await expect(page.getByText(`Done: moved to ${WEEKDAY_NAMES[to]}`)).toBeVisible()
	await page.getByRole('button', { name: 'Undo' }).click()
	await expect(page.getByText('Taken back.')).toBeVisible()

	// Each row on a line of its own; an entry opens its order, and the way back leads here.
	await page.getByRole('link', { name: 'timeline' }).click()
	await page.locator('.timeline .name a').first().click()
	await expect(page).toHaveURL(/\/app\/1\/order\?row=/)
	await page.context().close()
})

test('one is added on a day by a press on it, and stands there', async ({ browser }) => {
	const page = await signIn(browser, 'Osric Vane')
	await page.goto('/app/1/work')
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await page.getByRole('tab', { name: 'When' }).click()
	const adds = page.getByRole('link', { name: /^Add on / }).nth(10)
	await adds.click()
	await expect(page).toHaveURL(/\/app\/1\/raise\?h\.day=/)
	const day = new URL(page.url()).searchParams.get('h.day') ?? ''
	await expect(page.getByLabel('Day', { exact: true })).toHaveValue(day.split('-').reverse().join('/'))
	await page.getByLabel(/^What/).fill('Paint the perch')
	await page.getByLabel(/^Mooring/).fill('VQ-001')
	await page.getByRole('option', { name: 'VQ-001' }).click()
	await page.getByRole('button', { name: 'Send' }).click()
	await expect(page).toHaveURL(/\/app\/1\/work/)
	await page.getByRole('tab', { name: 'When' }).click()
	await expect(page.getByText('Paint the perch').first()).toBeVisible()
	// Along a line of days each head adds on its day too.
	await page.getByRole('link', { name: 'timeline' }).click()
	await expect(page.locator('.timeline')).toBeVisible()
	await expect(page.getByRole('link', { name: /^Add on / })).not.toHaveCount(0)
	await page.context().close()
})

test('a builder writes a calendar; on a phone it is read day by day, and not moved by who may not', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/screens?screen=inspections')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('Inspections')
	await write(builder, 'Calendar of Inspections, each on Date; each shows Mooring, Verdict')
	await expect(
		builder
			.frameLocator('iframe')
			.first()
			.getByRole('group', { name: /^Inspections, / })
	).toBeVisible()
	await release(builder, 1)
	await builder.context().close()

	const diver = await signIn(browser, 'Imke Dahl', PHONE)
	await diver.goto('/app/1/inspections')
	// Before it has come to life nothing answers a press.
	await expect(diver.locator('#svelte-announcer')).toBeAttached()
	const calendar = diver.getByRole('group', { name: /^Inspections, / })
	await calendar.getByRole('link', { name: 'Before' }).click()
	await calendar.locator('.small .days button:enabled').first().click()
	await expect(calendar.locator('.small section').first()).toBeVisible()
	// What was found stands as it was found: nobody moves it to another day.
	await expect(calendar.getByRole('button', { name: /^Move to/ })).toHaveCount(0)
	expect(await diver.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true)
	await diver.context().close()
})
