/** The Lookout: a form is tried there whole, with a photo and a signature, on a copy of the data. */
import { existsSync, readdirSync, statSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { fillInspection, photo, sign } from './inspection.ts'
import { PHONE, signIn } from './people.ts'
import { write } from './screen-lines.ts'

const WORKSPACE = 'test-results/workspace'

/** Files under a folder of the workspace, however deep. */
function filesIn(folder: string): string[] {
	const place = `${WORKSPACE}/${folder}`
	if (!existsSync(place)) return []
	return readdirSync(place, { recursive: true, encoding: 'utf8' }).filter((name) =>
		statSync(`${place}/${name}`).isFile()
	)
}

const choice = (builder: Page) =>
	builder.getByRole('region', { name: 'Lookout' }).getByRole('combobox', { name: 'as' }).last()

/** Where the Lookout shows what somebody sees: the address in its frame. */
async function lookAs(builder: Page, name: string, role: string): Promise<string> {
	await builder.goto('/bench/1/screens')
	await choice(builder).selectOption(`${name}, ${role}`)
	const frame = builder.getByTitle(`The app as ${name} sees it`).last()
	await expect(frame).toHaveAttribute('src', /^\/as\//)
	return (await frame.getAttribute('src')) ?? ''
}

test('whom a builder chose before the Lookout had chosen is still who is shown', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	let cascade = () => {}
	const held = new Promise<void>((resolve) => (cascade = resolve))
	await builder.route('**/bench/looks?app=1', async (route) => {
		await held
		await route.continue()
	})
	const asked = builder.waitForRequest('**/bench/looks?app=1')
	await builder.goto('/bench/1/screens')
	await asked
	await choice(builder).selectOption('Imke Dahl, divers')
	await expect(builder.getByTitle('The app as Imke Dahl sees it')).toBeVisible()
	cascade()
	// The other view is chosen for as ever.
	await expect(builder.getByTitle(/^The app as/)).toHaveCount(2)
	await expect(choice(builder).locator('option:checked')).toHaveText('Imke Dahl, divers')
	await builder.context().close()
})

test('what is written while a frame still loads is shown in it all the same', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	let deliver = () => {}
	const held = new Promise<void>((resolve) => (deliver = resolve))
	// Read at once, and there only after the line is saved.
	await builder.route('/as/**', async (route) => {
		if (route.request().resourceType() !== 'document') return route.continue()
		const response = await route.fetch()
		await held
		await route.fulfill({ response })
	})
	const asked = builder.waitForRequest('/as/**')
	await builder.goto('/bench/1/screens')
	await asked
	await write(builder, 'Text Said while it loads.')
	await expect(builder.getByText('Saving…')).toBeHidden()
	deliver()
	await expect(builder.frameLocator('iframe').first().getByText('Said while it loads.')).toBeVisible()
	await builder.getByRole('button', { name: 'Undo' }).click()
	await expect(builder.frameLocator('iframe').first().getByText('Said while it loads.')).toBeHidden()
	await builder.context().close()
})

test('a form with a photo is sent on the copy; the workspace gets neither the row nor the bytes', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	const base = (await lookAs(builder, 'Imke Dahl', 'divers')).split('/').slice(0, 3).join('/')
	const before = filesIn('files')
	await builder.goto(`${base}/inspect`)
	await fillInspection(builder, 'NH-023', 'Watch')
	await builder.getByLabel('Take or choose a photo').setInputFiles(photo())
	await expect(builder.getByRole('img', { name: 'What is in Photo' })).toBeVisible()
	await sign(builder)
	await builder.getByRole('button', { name: 'Send' }).click()
	await expect(builder.locator('p.thanks')).toBeVisible()

	await builder.goto(`${base}/inspections`)
	await builder.getByRole('link', { name: /NH-023 on 2026-11-23/ }).click()
	const shown = builder.getByRole('img', { name: 'Photo, opens larger' })
	await expect(shown).toBeVisible()
	await expect.poll(() => shown.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(2000)
	const address = (await shown.getAttribute('src')) ?? ''

	expect(filesIn('files')).toEqual(before)
	expect(filesIn('tries').filter((name) => name.includes('-files/'))).toHaveLength(2)
	const diver = await signIn(browser, 'Imke Dahl', PHONE)
	await diver.goto('/app/1/inspections')
	await expect(diver.getByRole('link', { name: /on 20/ }).first()).toBeVisible()
	await expect(diver.getByRole('link', { name: /NH-023 on 2026-11-23/ })).toHaveCount(0)
	// Nobody but this builder is shown the copy, the one it is about included.
	expect((await diver.request.get(address)).status()).toBe(403)
	expect((await builder.request.get(address)).status()).toBe(200)
	// Without the Lookout's token there is no such row.
	expect((await builder.request.get(address.replace(/&as=.*/, ''))).status()).toBe(404)

	const ended = await builder.evaluate(() => fetch('/bench/looks', { method: 'DELETE' }).then(({ status }) => status))
	expect(ended).toBe(200)
	expect(filesIn('tries')).toEqual([])
	await Promise.all([builder.context().close(), diver.context().close()])
})

test('what a desk cannot do is played by a stand-in that says so: camera, place and no signal', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm', { width: 1440, height: 1000 })
	await builder.goto('/bench/1/screens?screen=inspect')
	await choice(builder).selectOption('Imke Dahl, divers')
	const frame = builder.frameLocator('iframe[title="The app as Imke Dahl sees it"]').last()
	await frame.getByRole('button', { name: 'A stand-in for the camera' }).click()
	await expect(frame.getByRole('img', { name: 'What is in Photo' })).toBeVisible()

	const cut = builder.getByRole('button', { name: 'no signal' }).last()
	await cut.click()
	await expect(cut).toHaveAttribute('aria-pressed', 'true')
	await expect(frame.getByText('No signal is played: nothing is sent.')).toBeVisible()
	await frame.getByRole('link', { name: 'Due' }).last().press('Enter')
	await expect(frame.getByText('another screen is not opened until there is one again')).toBeVisible()
	await cut.click()
	await expect(frame.getByText('No signal is played: nothing is sent.')).toBeHidden()
	await frame.getByRole('link', { name: 'Due' }).last().press('Enter')
	await expect(frame.getByRole('heading', { name: /^Due / })).toBeVisible()
	await builder.context().close()
})
