/** A diver's form on a phone: a photo, findings and a signature, kept through a reload and a lost signal. */
import { expect, test } from '@playwright/test'
import { fillInspection, photo, sign } from './inspection.ts'
import { PHONE, signIn } from './people.ts'

test('a photo, findings and a signature go with the form, and come back with the row', async ({ browser }) => {
	const diver = await signIn(browser, 'Imke Dahl', PHONE)
	await diver.goto('/app/1/inspect')
	await fillInspection(diver, 'NH-021', 'Watch')
	await diver.getByLabel('No mousing').check()
	await diver.getByLabel('Worn shackle').check()
	await diver.getByLabel('Take or choose a photo').setInputFiles(photo())
	await expect(diver.getByRole('img', { name: 'What is in Photo' })).toBeVisible()
	await sign(diver)

	await diver.reload()
	await expect(diver.getByText('Kept from before on this device.')).toBeVisible()
	await expect(diver.getByRole('img', { name: 'What is in Photo' })).toBeVisible()
	await expect(diver.getByRole('img', { name: 'What is in Signed' })).toBeVisible()
	await expect(diver.getByLabel('Worn shackle')).toBeChecked()

	await diver.getByRole('button', { name: 'Send' }).click()
	await expect(diver.locator('p.thanks')).toBeVisible()
	await diver.goto('/app/1/inspections')
	await diver.getByRole('link', { name: /NH-021 on 2026-11-23/ }).click()
	await expect(diver.getByText('Worn shackle')).toBeVisible()
	const shown = diver.getByRole('img', { name: 'Photo, opens larger' })
	await expect(shown).toBeVisible()
	// As it was sent: its longer side made 2,000 pixels.
	await expect.poll(() => shown.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(2000)
	await expect(diver.getByRole('img', { name: 'Signed, opens larger' })).toBeVisible()
	await diver.context().close()
})

test('without a signal a photo stays on the page and goes with the form', async ({ browser }) => {
	const diver = await signIn(browser, 'Imke Dahl', PHONE)
	await diver.goto('/app/1/inspect')
	await fillInspection(diver, 'NH-022', 'Sound')
	await diver.context().setOffline(true)
	await diver.getByLabel('Take or choose a photo').setInputFiles(photo())
	await expect(diver.getByText('No signal: it is kept on this page and goes with the form.')).toBeVisible()
	await diver.getByRole('button', { name: 'Send' }).click()
	await expect(diver.getByText('Not sent yet: see what is marked above.')).toBeVisible()
	await diver.context().setOffline(false)
	await diver.getByRole('button', { name: 'Send' }).click()
	await expect(diver.locator('p.thanks')).toBeVisible()
	await diver.goto('/app/1/inspections')
	await diver.getByRole('link', { name: /NH-022 on 2026-11-23/ }).click()
	await expect(diver.getByRole('img', { name: 'Photo, opens larger' })).toBeVisible()
	await diver.context().close()
})

test('a page that calls itself a photo is refused', async ({ browser }) => {
	const diver = await signIn(browser, 'Imke Dahl', PHONE)
	await diver.goto('/app/1/inspect')
	const page = { name: 'chain.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('<script>alert(1)</script>') }
	await diver.getByLabel('Take or choose a photo').setInputFiles(page)
	await expect(diver.getByText('chain.jpg cannot be shown as a picture. Choose a JPEG or PNG.')).toBeVisible()
	await diver.context().close()
})
