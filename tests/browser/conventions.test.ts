/** Dates and figures as a workspace writes them: a steward says so once, and everybody reads and types them that way. */
import { expect, test } from '@playwright/test'
import { signIn } from './people.ts'

test('a steward has dates and figures written as in Germany, and a request is typed that way', async ({ browser }) => {
	const steward = await signIn(browser, 'Ailith Brand')
	const writeAsIn = async (region: string) => {
		await steward.goto('/workspace')
		await steward.getByLabel('Dates and figures').selectOption(region)
		await steward.getByRole('button', { name: 'Keep it' }).click()
		await expect(steward.getByRole('status')).toContainText('Kept.')
	}
	await writeAsIn('Germany')
	try {
		await expect(steward.getByText('1.234,5')).toBeVisible()
		const keeper = await signIn(browser, 'Wim Pascoe-Reyes')
		await keeper.goto('/app/2/ask')
		await keeper.getByLabel('What for').fill('Anodes, by the crate')
		const items = keeper.getByRole('region', { name: 'Spend items' })
		await items.getByRole('button', { name: 'Add one' }).click()
		await items.getByLabel('Item, must').fill('Anode')
		await items.getByLabel('Quantity').fill('1.000')
		await items.getByLabel('Each').fill('1,5')
		await expect(items.getByText(/1\.500,00\s£/)).toBeVisible()
		await keeper.getByLabel('Amount').fill('1.5.0')
		await keeper.getByLabel('Cost code').selectOption('4110 Chain and tackle')
		await keeper.getByRole('button', { name: 'Send' }).click()
		await expect(keeper.getByText('with a comma before decimals: 1,4.')).toBeVisible()
		await keeper.getByLabel('Amount').fill('1.500,00')
		await keeper.getByRole('button', { name: 'Send' }).click()
		await expect(keeper.locator('p.thanks')).toBeVisible()
		await keeper.goto('/app/2/requests')
		await expect(
			keeper
				.locator('main')
				.getByText(/1\.500,00\s£/)
				.first()
		).toBeVisible()

		// A date is typed as it is written, and comes back as it was meant.
		const diver = await signIn(browser, 'Imke Dahl')
		await diver.goto('/app/1/inspect')
		await diver.getByLabel('Date').fill('28.11.2026')
		await diver.getByLabel('Date').blur()
		await expect(diver.getByLabel('Date')).toHaveValue('28.11.2026')
		await diver.getByLabel('Date').fill('')
		await expect(diver.getByLabel('Date')).toHaveAttribute('placeholder', 'dd.mm.yyyy')
		await Promise.all([keeper.context().close(), diver.context().close()])
	} finally {
		await writeAsIn('United Kingdom')
	}
	await steward.context().close()
})

test('whoever is no steward does not come to these settings', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	const answer = await builder.goto('/workspace')
	expect(answer?.status()).toBe(403)
	const sent = await builder.request.post('/workspace?/settings', {
		headers: { origin: new URL(builder.url()).origin },
		form: { name: 'Taken', timeZone: 'UTC', locale: 'de-DE' }
	})
	expect(await sent.text()).toContain('Only stewards may do this.')
	await builder.context().close()
})

test('a steward holds back all that leaves, and lets it go again', async ({ browser }) => {
	const page = await signIn(browser, 'Ailith Brand')
	await page.goto('/workspace')
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await page.getByRole('button', { name: 'Hold all of it back' }).click()
	await expect(page.getByText(/^Held back since .* Nothing waits\.$/)).toBeVisible()
	await page.getByRole('button', { name: 'Let it leave again' }).click()
	await expect(page.getByText('Mail leaves as it comes.')).toBeVisible()
	await page.context().close()
})
