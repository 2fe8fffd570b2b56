/** What is looked for on a screen: kept in its address and under a name; and a sheet whose row others change, or which is not there. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { PHONE, signIn } from './people.ts'

test('a search with its filters and order is kept under a name, for oneself alone', async ({ browser }) => {
	const wim = await signIn(browser, 'Wim Pascoe-Reyes')
	await wim.goto('/app/3/all')
	await wim.getByLabel('Item').fill('bow')
	await wim.getByRole('radio', { name: 'Gull Stair' }).check()
	await expect(wim.getByText('3 stock')).toBeVisible()
	await wim.getByRole('columnheader', { name: 'In stock' }).getByRole('button').click()
	await expect(wim).toHaveURL(/s\.all-2=\d+/)
	await wim.getByRole('button', { name: 'Keep this search…' }).click()
	await wim.getByLabel('What this search is called').fill('Bows at the Stair')
	await wim.getByRole('button', { name: 'Keep it' }).click()
	const kept = wim.getByRole('group', { name: 'Kept searches' })
	await expect(kept.getByRole('button', { name: 'Bows at the Stair', exact: true })).toHaveAttribute(
		'aria-pressed',
		'true'
	)
	const { violations } = await new AxeBuilder({ page: wim }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])

	// On the phone, on another day.
	const phone = await signIn(browser, 'Wim Pascoe-Reyes', PHONE)
	await phone.goto('/app/3/all')
	await expect(phone.getByText('180 stock')).toBeVisible()
	await phone.getByRole('button', { name: 'Bows at the Stair', exact: true }).click()
	await expect(phone.getByText('3 stock')).toBeVisible()
	await expect(phone.getByLabel('Item')).toHaveValue('bow')

	const hale = await signIn(browser, 'Hale Dunmore')
	await hale.goto('/app/3/all')
	await expect(hale.getByText('180 stock')).toBeVisible()
	await expect(hale.getByText('Bows at the Stair')).toHaveCount(0)

	await kept.getByRole('button', { name: 'Keep Bows at the Stair no longer' }).click()
	await expect(kept.getByRole('button', { name: 'Keep this search…' })).toBeVisible()
	for (const page of [wim, phone, hale]) await page.context().close()
})

test('words that a list is looked through for, and its order, are there after a reload and in a link', async ({
	browser
}) => {
	const wim = await signIn(browser, 'Wim Pascoe-Reyes')
	await wim.goto('/app/3/stock')
	await wim.getByRole('searchbox').fill('shackle')
	await expect(wim).toHaveURL(/#f\.stock-2=shackle/)
	await expect(wim.getByText(/^4 stock found/)).toBeVisible()
	await wim.reload()
	await expect(wim.getByRole('searchbox')).toHaveValue('shackle')
	await expect(wim.getByText(/^4 stock found/)).toBeVisible()
	await wim.getByRole('link', { name: /Bow shackle 13/ }).click()
	await expect(wim.getByRole('heading', { name: 'Bow shackle 13 mm' })).toBeVisible()
	await expect(wim.getByText(/^4 stock found/)).toBeVisible()
	await wim.goto('/app/3/order')
	await wim.getByRole('columnheader', { name: 'Price' }).getByRole('button').click()
	await expect(wim.getByRole('columnheader', { name: 'Price' })).toHaveAttribute('aria-sort', 'ascending')
	const first = await wim.locator('tbody tr').first().innerText()
	await wim.reload()
	await expect(wim.locator('tbody tr').first()).toContainText(first.split('\t')[1]?.trim() ?? '')
	await expect(wim.getByRole('columnheader', { name: 'Price' })).toHaveAttribute('aria-sort', 'ascending')
	await wim.context().close()
})

test('what others change on a sheet is marked there; what one did oneself is not', async ({ browser }) => {
	const [wim, jory] = await Promise.all([signIn(browser, 'Wim Pascoe-Reyes'), signIn(browser, 'Jory Pendarrow')])
	for (const page of [wim, jory]) {
		await page.goto('/app/3/stock')
		await page
			.getByRole('link', { name: /Grease cartridge/ })
			.first()
			.click()
		await expect(page.getByRole('heading', { name: 'Grease cartridge' })).toBeVisible()
	}
	await jory.getByRole('button', { name: 'Add 1 to One' }).click()
	await expect(wim.locator('article').getByText('changed', { exact: true }).first()).toBeVisible()
	await expect(jory.getByText('Done: One +1.')).toBeVisible()
	await expect(jory.locator('article').getByText('changed', { exact: true })).toHaveCount(0)
	await wim.getByRole('button', { name: /values changed by others · seen/ }).click()
	await expect(wim.locator('article').getByText('changed', { exact: true })).toHaveCount(0)
	await jory.getByRole('button', { name: 'Undo' }).click()
	for (const page of [wim, jory]) await page.context().close()
})

test('beside a row that is not there nothing is offered but to ask', async ({ browser }) => {
	const wim = await signIn(browser, 'Wim Pascoe-Reyes')
	await wim.goto('/app/3/item?row=AAAAAAAAAAAAAAAAAAAAAA&from=stock')
	await expect(wim.getByText('This row is not there, or not for you to see.')).toBeVisible()
	await expect(wim.getByRole('link', { name: 'Count it' })).toHaveCount(0)
	await expect(wim.getByRole('button', { name: 'Counted today' })).toHaveCount(0)
	await wim.context().close()
})
