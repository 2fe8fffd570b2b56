/** Before and after a release: what it would change and for whom, at a set time, as a file, and from a shell. */
import { execFile } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { expect, test } from '@playwright/test'
import type { SavedBundle } from '../../src/lib/core/app/bundle.ts'
import { DEMO_PASSWORD } from '../../demo/password.ts'
import { BASE } from './asking.ts'
import { signIn } from './people.ts'
import { write } from './screen-lines.ts'

const folder = mkdtempSync(join(tmpdir(), 'tin-shed-releases-'))

test('a release is looked at before it is made: what is to be mended, for whom what changes, and when', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/2/screens')
	// Before it has come to life nothing answers a press.
	await expect(builder.locator('#svelte-announcer')).toBeAttached()
	await builder.getByRole('button', { name: '+ Screen' }).click()
	await builder.getByLabel('Title of the screen').fill('By cost code')
	await builder.getByLabel('Title of the screen').blur()
	await write(builder, 'Chart of the count from Spend requests, by Cost code')
	await write(builder, 'Board of Spend requests, in lanes by Amount; each card shows What for')
	await expect(builder.getByText('Saving…')).toBeHidden()
	await builder.getByRole('link', { name: 'Check and release' }).click()

	// The finding leads to its line.
	const finding = builder.getByRole('listitem').filter({ hasText: 'The lanes of a board are those of a choice' })
	await finding.getByRole('link', { name: 'By cost code, line 2' }).click()
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('By cost code')
	await expect(builder.locator('.line.marked')).toContainText('Board of')
	await builder.getByRole('button', { name: 'Remove line 2' }).click()
	await expect(builder.getByText('Saving…')).toBeHidden()

	await builder.getByRole('link', { name: 'Check and release' }).click()
	await expect(builder.getByLabel('What has changed')).toHaveValue(/Screen By cost code added\.$/)
	const gains = builder.getByRole('region').or(builder.locator('section')).filter({ has: builder.getByRole('heading', { name: 'Who gets what by it' }) }) // prettier-ignore
	await expect(gains.last()).toContainText('By cost code')
	await expect(gains.last()).toContainText(/for .+ and \d+ more/)

	// At a set time, and called off again.
	await builder.getByLabel('At a set time').check()
	const tomorrow = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10)
	await builder.getByLabel('When, by the clock').fill(`${tomorrow}T06:00`)
	await builder.getByRole('button', { name: 'Plan the release' }).click()
	await expect(builder.getByText('as Saskia Holm planned')).toBeVisible()
	await expect(builder.getByLabel('What has changed')).toHaveValue(/Screen By cost code added\.$/)
	await builder.getByRole('button', { name: 'Call it off' }).click()
	await expect(builder.getByText('The planned release is called off.')).toBeVisible()
	await builder.context().close()
})

test('a builder is told how screens are used, and of few people only that they were few', async ({ browser }) => {
	const wim = await signIn(browser, 'Wim Pascoe-Reyes')
	await wim.goto('/app/3/order')
	await wim.context().close()
	const builder = await signIn(browser, 'Saskia Holm')
	// What was opened is gathered for some seconds before it is written.
	await expect(async () => {
		await builder.goto('/bench/3/release')
		const row = builder.getByRole('region', { name: 'How it is used' }).getByRole('row', { name: /^To order/ })
		await expect(row).toContainText('by fewer than five', { timeout: 500 })
	}).toPass()
	await builder.context().close()
})

test('an app leaves as a file, and comes back after a look at what that changes', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/4/release')
	// Before it has come to life nothing answers a press.
	await expect(builder.locator('#svelte-announcer')).toBeAttached()
	const saved = builder.waitForEvent('download')
	await builder.getByRole('link', { name: 'Save the draft as a file' }).click()
	const file = join(folder, 'quayside.json')
	await (await saved).saveAs(file)
	const document = JSON.parse(readFileSync(file, 'utf8')) as {
		$schema: string
		screens: { id: string; title: string }[]
	}
	expect(document.$schema).toContain('/schema/app.json')

	const choose = builder.getByLabel('Bring a file in…')
	await choose.setInputFiles(file)
	await expect(builder.getByText('quayside.json says what the draft says.')).toBeVisible()
	writeFileSync(file, '{"format": 3, "name": "Quayside"')
	await choose.setInputFiles(file)
	await expect(builder.getByRole('alert')).toContainText('This is no document of an app: it is no JSON')

	const screens = document.screens.map((screen) =>
		screen.id === 'visits' ? { ...screen, title: 'Every visit' } : screen
	)
	writeFileSync(file, JSON.stringify({ ...document, screens }))
	await choose.setInputFiles(file)
	await expect(builder.getByRole('heading', { name: 'Screen Every visit' })).toBeVisible()
	await builder.getByRole('button', { name: 'Put it into the draft' }).click()
	await expect(builder.getByText('The draft says now what quayside.json says.')).toBeVisible()
	await builder.goto('/bench/4/screens')
	await expect(builder.getByRole('button', { name: 'Every visit' })).toBeVisible()
	await builder.context().close()
})

test('from a shell an app is saved, compared, put in and checked, as one of its builders', async () => {
	const env = {
		...process.env,
		...{ TIN_SHED_URL: BASE, TIN_SHED_EMAIL: 'saskia.holm@varrow.example', TIN_SHED_PASSWORD: DEMO_PASSWORD }
	}
	const run = (args: string[], over: object = {}) =>
		promisify(execFile)('node', ['scripts/app.mjs', ...args], { env: { ...env, ...over } }).then(
			({ stdout }) => ({ code: 0, stdout, stderr: '' }),
			({ code, stdout, stderr }: { code: number; stdout: string; stderr: string }) => ({ code, stdout, stderr })
		)
	const file = join(folder, 'stores.json')
	expect(await run(['export', '3', file])).toMatchObject({ code: 0 })
	expect(await run(['compare', '3', file])).toMatchObject({ code: 0, stdout: '' })
	const document = JSON.parse(readFileSync(file, 'utf8')) as { about: string }
	writeFileSync(file, JSON.stringify({ ...document, about: 'What lies on the shelves, and what is short' }))
	const compared = await run(['compare', '3', file])
	expect(compared).toMatchObject({
		code: 1,
		stdout: expect.stringContaining('[+What lies on the shelves, and what is short+]')
	})
	expect(await run(['import', '3', file])).toMatchObject({
		code: 0,
		stdout: expect.stringContaining('The draft is version')
	})
	expect(await run(['compare', '3', file])).toMatchObject({ code: 0 })
	expect((await run(['check', '3'])).code).toBe(0)
	writeFileSync(file, JSON.stringify(document))
	expect((await run(['import', '3', file])).code).toBe(0)

	expect(await run(['check', '99'])).toMatchObject({ code: 1, stderr: expect.stringContaining('not there') })
	expect(await run(['paint', '3'])).toMatchObject({ code: 2 })
	const stranger = { TIN_SHED_EMAIL: 'imke.dahl@varrow.example' }
	expect(await run(['check', '3'], stranger)).toMatchObject({ code: 1 })
	expect(await run(['check', '3'], { TIN_SHED_PASSWORD: 'wrong' })).toMatchObject({ code: 1, stderr: expect.stringContaining('do not belong together') }) // prettier-ignore
})

test('an app leaves with its tables as a bundle, and is put in beside them; nobody sees these until a line is taken', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/4/release')
	await expect(builder.locator('#svelte-announcer')).toBeAttached()
	const saved = builder.waitForEvent('download')
	await builder.getByRole('button', { name: 'Save it with its tables, as a bundle' }).click()
	const file = join(folder, 'quay.bundle.json')
	await (await saved).saveAs(file)
	await expect(builder.getByText('People: never in a bundle. What points to them is blank.')).toBeVisible()
	const text = readFileSync(file, 'utf8')
	const bundle = JSON.parse(text) as SavedBundle & { app: object }
	expect(bundle.tables.map(({ name }) => name)).toEqual(expect.arrayContaining(['Berths', 'Visits']))
	expect(text).not.toMatch(/Corrie Ashdown|Lowen Abara/)
	// Whatever leaves is in the Logbook, each table by itself.
	const log = await (await builder.request.get('/bench/4/logbook/__data.json?find=export')).text()
	expect(log).toContain('"bundle"')

	await builder.goto('/bench/new')
	await expect(builder.locator('#svelte-announcer')).toBeAttached()
	const choose = builder.getByLabel('Choose a bundle…')
	writeFileSync(file, text.slice(0, 2_000))
	await choose.setInputFiles(file)
	await expect(builder.getByRole('alert')).toContainText('This is no bundle of an app: it is no JSON')
	// By names that no other test looks for.
	const tables = bundle.tables.map((table) => ({ ...table, name: `Borrowed ${table.name.toLowerCase()}` }))
	writeFileSync(file, JSON.stringify({ ...bundle, tables, app: { ...bundle.app, name: 'Borrowed quay' } }))
	await choose.setInputFiles(file)
	await expect(builder.getByRole('rowheader', { name: 'Borrowed berths' })).toBeVisible()
	await builder.getByRole('button', { name: 'Put it in' }).click()
	await expect(builder.getByText(/\d+ tables with [\d,]+ rows\./)).toBeVisible()

	await builder.getByRole('link', { name: 'Who may see Borrowed berths' }).click()
	await expect(builder.getByRole('heading', { name: 'Nobody but its keepers sees this table yet' })).toBeVisible()
	await builder.getByRole('button', { name: 'Take: Came with the table: 1' }).click()
	await expect(builder.getByRole('group', { name: 'Line 1' })).toBeVisible()
	await builder.getByRole('button', { name: 'Save' }).first().click()
	await expect(builder.getByRole('heading', { name: 'Nobody but its keepers sees this table yet' })).toBeHidden()
	await builder.context().close()
})
