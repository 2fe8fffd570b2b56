/** A tablet that nobody attends: it goes back by itself, and the next visitor finds nothing of the last. */
import { expect, test } from '@playwright/test'
import { signIn } from './people.ts'
import { release, write } from './screen-lines.ts'

test('a timer goes back, and the next visitor sees nothing typed', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/screens?screen=new')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('New item')
	await write(builder, 'Goes back to To order after 5 seconds untouched')
	await builder.goto('/bench/3/screens?screen=all')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('All harbours')
	await write(builder, 'Goes back to All harbours after 900 seconds untouched, keeping harbour and kind')
	await release(builder, 3)
	await builder.context().close()

	const page = await signIn(browser, 'Wim Pascoe-Reyes')
	// The clock is the page's own, so that the test does not wait for it.
	await page.clock.install()
	await page.goto('/app/3/new')
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await page.getByLabel('Item').fill('Private words')
	await page.clock.runFor(4_000)
	await expect(page.getByText(/^Goes back in \d s\./)).toBeVisible()
	await page.getByRole('button', { name: 'Stay' }).click()
	await expect(page.getByText(/^Goes back in/)).toBeHidden()
	await page.clock.runFor(6_000)
	await page.waitForURL((url) => url.pathname === '/app/3/order')
	await page.goto('/app/3/new')
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await page.clock.runFor(1_000)
	await expect(page.getByLabel('Item')).toHaveValue('')
	await expect(page.getByText('Kept from before on this device.')).toHaveCount(0)

	// What is the tablet's own goes along; what was typed does not.
	await page.goto('/app/3/all')
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await page.getByRole('radio', { name: 'Gull Stair' }).check()
	await page.getByRole('combobox', { name: 'Kind' }).selectOption('Rope')
	await page.getByLabel('Item').fill('twine')
	await page.clock.runFor(1_000)
	await expect(page).toHaveURL(/sought=twine/)
	const gone = page.waitForEvent('domcontentloaded')
	await page.clock.runFor(900_000)
	await gone
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await expect(page.getByRole('radio', { name: 'Gull Stair' })).toBeChecked()
	await expect(page.getByRole('combobox', { name: 'Kind' })).toHaveValue('Rope')
	await expect(page.getByLabel('Item')).toHaveValue('')
	await page.context().close()
})
