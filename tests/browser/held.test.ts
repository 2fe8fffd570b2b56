/** What a screen holds, from both sides: written by a builder with the keyboard, used by who works in the stores. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { PHONE, signIn } from './people.ts'
import { release, write } from './screen-lines.ts'

test('a builder writes a search box, a filter and a button that gives; staff go by them', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/screens?screen=order')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('To order')
	await write(
		builder,
		'Search box for wanted, asking Which item, such as paint',
		'Filter by Kind of Stock as kind',
		'List of Stock where Harbour = me.Harbour, and once chosen ISNUMBER(SEARCH(here.wanted; Item)) and Kind = here.kind, by Item; each row shows Item, Kind, In stock; a tap opens nothing',
		'Holds a number as most, starting as 5'
	)
	// In the slot its formula is sound, and says by what it goes.
	await builder.getByRole('button', { name: /SEARCH\(here\.wanted/ }).click()
	await expect(builder.getByText('what is chosen or typed on the screen: wanted, kind')).toBeVisible()
	await builder.keyboard.press('Escape')
	await write(builder, 'Button Paint only sets what this screen holds', 'With "paint" as wanted')
	await release(builder, 3)

	const wim = await signIn(browser, 'Wim Pascoe-Reyes', PHONE)
	await wim.goto('/app/3/order')
	const box = wim.getByLabel('Which item')
	await expect(box).toHaveAttribute('placeholder', 'paint')
	await box.fill('chain')
	const list = wim
		.locator('[data-line]')
		.filter({ has: wim.getByText('stock', { exact: false }) })
		.last()
	await expect(list.getByText(/^5 stock/)).toBeVisible()
	await wim.getByRole('combobox', { name: 'Kind' }).selectOption('Tool')
	await expect(list.getByText(/^1 item/)).toBeVisible()
	const { violations } = await new AxeBuilder({ page: wim }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	// The link says it all to a colleague.
	const address = wim.url()
	const jory = await signIn(browser, 'Jory Pendarrow')
	await jory.goto(address)
	await expect(jory.getByLabel('Which item')).toHaveValue('chain')
	await expect(jory.getByText(/^1 item/)).toBeVisible()
	await wim.getByRole('combobox', { name: 'Kind' }).selectOption('all')
	// Written below the list, the button stands on its rows.
	await wim
		.getByRole('button', { name: /^Do something with/ })
		.first()
		.click()
	await wim.getByRole('button', { name: /^Paint only/ }).click()
	await expect(box).toHaveValue('paint')
	for (const page of [builder, wim, jory]) await page.context().close()
})
