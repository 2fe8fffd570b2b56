/** A board: moved by keys, by a mouse and by touch; what would be refused is said before. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { PHONE, signIn } from './people.ts'
import { release, write } from './screen-lines.ts'

const lane = (page: Page, name: string) => page.getByRole('region', { name: new RegExp(`^${name}, \\d+`) })
const countOf = async (page: Page, name: string) =>
	Number(/, (\d+)$/.exec(String(await lane(page, name).getAttribute('aria-label')))?.[1])

test('a harbour master moves work on: by keys, by dragging, and not where a check refuses it', async ({ browser }) => {
	const page = await signIn(browser, 'Osric Vane')
	await page.goto('/app/1/work')
	await expect(page.getByRole('heading', { name: 'Work orders' })).toBeVisible()
	const { violations } = await new AxeBuilder({ page }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])

	// What was raised has no day yet: it can go nowhere, and each lane says why.
	const raised = lane(page, 'Raised')
		.getByRole('button', { name: /^Move to/ })
		.first()
	await raised.focus()
	await page.keyboard.press('Enter')
	const offered = page.getByRole('list', { name: /^Move .* to$/ })
	await expect(offered.getByText('Give the order a day first.').first()).toBeVisible()
	await expect(offered.getByRole('button', { name: /Planned/ })).toBeDisabled()
	await page.keyboard.press('Escape')
	await expect(offered).toHaveCount(0)
	await expect(raised).toBeFocused()

	// By its number, and back.
	const [planned, waiting] = [await countOf(page, 'Planned'), await countOf(page, 'Waiting for parts')]
	await lane(page, 'Planned')
		.getByRole('button', { name: /^Move to/ })
		.first()
		.press('Enter')
	await expect(offered.getByRole('button', { name: /Waiting for parts/ })).toBeEnabled()
	await page.keyboard.press('4')
	await expect(page.getByText('Done: moved to Waiting for parts.')).toBeVisible()
	await expect.poll(() => countOf(page, 'Planned')).toBe(planned - 1)
	expect(await countOf(page, 'Waiting for parts')).toBe(waiting + 1)
	await page.getByRole('button', { name: 'Undo' }).click()
	await expect.poll(() => countOf(page, 'Planned')).toBe(planned)

	// By the mouse.
	const card = lane(page, 'Planned').getByRole('listitem').first()
	await card.dragTo(lane(page, 'Waiting for parts'))
	await expect.poll(() => countOf(page, 'Planned')).toBe(planned - 1)
	await page.getByRole('button', { name: 'Undo' }).click()
	await expect.poll(() => countOf(page, 'Planned')).toBe(planned)

	// A card opens its order.
	await lane(page, 'Done').getByRole('link').first().click()
	await expect(page).toHaveURL(/\/app\/1\/order\?row=/)
	await page.context().close()
})

test('a builder writes a board; on a phone a card is moved by a tap, and not by who may not', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/screens?screen=order')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('To order')
	await write(
		builder,
		'Board of Stock where short, in lanes by Kind; each card shows Item, Harbour; adds up In stock',
		"Mark none left as past where 'In stock' = 0"
	)
	await release(builder, 3)
	await builder.context().close()

	const wim = await signIn(browser, 'Wim Pascoe-Reyes', PHONE)
	await wim.goto('/app/3/order')
	const own = lane(wim, 'Tool').getByRole('listitem').filter({ hasText: 'Varrow Quay' }).first()
	await own.getByRole('button', { name: /^Move to/ }).click()
	await own.getByRole('button', { name: /Spare/ }).click()
	await expect(wim.getByText('Done: moved to Spare.')).toBeVisible()
	await wim.getByRole('button', { name: 'Undo' }).click()
	await expect(wim.getByText('Taken back.')).toBeVisible()
	// Of another harbour they see it, and change nothing.
	const other = lane(wim, 'Tool').getByRole('listitem').filter({ hasNotText: 'Varrow Quay' }).first()
	await other.getByRole('button', { name: /^Move to/ }).click()
	await expect(other.getByRole('button', { name: /Spare/ })).toBeDisabled()
	await expect(other.locator('.why').first()).toBeVisible()
	expect(await wim.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true)
	await wim.context().close()
})
