/** A tablet that nobody attends: it goes back by itself, and the next visitor finds nothing of the last. */
import { expect, test } from '@playwright/test'
import { signIn } from './people.ts'
import { write } from './screen-lines.ts'

test('a timer goes back, and the next visitor sees nothing typed', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/screens?screen=new')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('New item')
	await write(builder, 'Goes back to To order after 5 seconds untouched')
	await expect(builder.getByText('Saving…')).toBeHidden()
	await builder.goto('/bench/3/release')
	await builder.getByRole('button', { name: /^Release as no/ }).click()
	await expect(builder.getByText('is live.')).toBeVisible()
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
	await page.context().close()
})
