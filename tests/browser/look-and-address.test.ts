/** How pages look on a device, by hand; and an app that is found by a word of its own. */
import { expect, test } from '@playwright/test'
import { PHONE, signIn } from './people.ts'

test('somebody takes the dark and more contrast on one device, from the first paint on', async ({ browser }) => {
	const imke = await signIn(browser, 'Imke Dahl', PHONE)
	await imke.goto('/app/1/due')
	await imke.getByRole('button', { name: /Mooring Care/ }).click()
	const ground = () => imke.evaluate(() => getComputedStyle(document.documentElement).backgroundColor)
	expect(await ground()).toBe('rgb(255, 255, 255)')
	await imke.getByRole('radio', { name: 'dark' }).check()
	await expect.poll(ground).toBe('rgb(28, 36, 32)')
	await imke.getByRole('checkbox', { name: 'more contrast' }).check()
	const html = await (await imke.request.get('/app/1/due')).text()
	expect(html).toMatch(/^<!doctype html>\s*<html lang="en-GB" data-theme="dark" data-contrast="more">/)
	await imke.reload()
	expect(await ground()).toBe('rgb(28, 36, 32)')
	await imke.context().close()
})

test('an app is found by its word, by whoever may come to it', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/4/release')
	const word = builder.getByLabel(/^A word of its own/)
	await word.fill('harbour office')
	await builder.getByRole('button', { name: 'Take it' }).click()
	await expect(builder.getByRole('alert')).toContainText('small letters, digits and strokes')
	await expect(word).toHaveValue('harbour office')
	await word.fill('quayside')
	await builder.getByRole('button', { name: 'Take it' }).click()
	await expect(builder.getByRole('link', { name: /\/to\/quayside$/ })).toBeVisible()

	const corrie = await signIn(browser, 'Corrie Ashdown')
	await corrie.goto('/to/quayside')
	await expect(corrie).toHaveURL(/\/app\/4/)
	expect((await corrie.request.get('/to/nowhere')).status()).toBe(404)
	// Who is not signed in comes to its door, where it has one; of any other word nothing is told.
	const crew = await (await browser.newContext()).newPage()
	await crew.goto('/to/quayside')
	await expect(crew).toHaveURL(/\/door\/4$/)
	await crew.goto('/to/nowhere')
	await expect(crew).toHaveURL(/\/sign-in/)
	for (const page of [builder, corrie, crew]) await page.context().close()
})
