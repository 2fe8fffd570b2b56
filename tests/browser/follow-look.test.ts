/** A Lookout that is followed on a phone by a code from the desk: what it shows, and all that it does not open. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { PHONE, signIn } from './people.ts'

const ANDROID = 'Mozilla/5.0 (Linux; Android 14; Quay 3) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/143.0 Mobile'

test('a phone follows each edit, until the builder ends it or signs out', async ({ browser }) => {
	const builder = await signIn(browser, 'Jory Pendarrow', { width: 1440, height: 900 })
	await builder.goto('/bench/1/screens?screen=due')
	const offer = builder.getByRole('button', { name: 'On a phone…' }).first()
	await offer.click()
	const panel = builder.getByRole('group', { name: 'Follow it on a device' })
	await expect(panel).toContainText('It serves once')
	const { violations: atDesk } = await new AxeBuilder({ page: builder }).include('.offer').analyze()
	expect(atDesk.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	const code = (await panel.locator('.code').innerText()).trim()

	const context = await browser.newContext({ viewport: PHONE, userAgent: ANDROID })
	const phone = await context.newPage()
	// As it stands in the code that is scanned; opening it alone uses nothing up.
	await phone.goto(`/look/${code.replace(' ', '')}`)
	await phone.reload()
	const { violations } = await new AxeBuilder({ page: phone }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	await phone.getByRole('button', { name: 'Follow it on this device' }).click()
	await expect(phone.getByRole('heading', { name: 'Due within four weeks' })).toBeVisible()
	await expect(phone.getByText(/^Lookout: as /)).toBeVisible()
	await expect(builder.getByText(/^A phone follows since/)).toBeVisible()
	await expect(panel).toBeHidden()

	// Each edit arrives by itself.
	await builder.getByRole('button', { name: 'Due within four weeks', exact: true }).click()
	const words = builder.getByRole('textbox', { name: 'words' })
	await words.fill('Due before the spring tides')
	await words.press('Enter')
	await expect(phone.getByRole('heading', { name: 'Due before the spring tides' })).toBeVisible()
	await builder.getByRole('button', { name: 'Undo' }).first().click()
	await expect(phone.getByRole('heading', { name: 'Due within four weeks' })).toBeVisible()

	// The code has served.
	const other = await browser.newContext()
	const second = await other.newPage()
	await second.goto('/look')
	await second.getByLabel('The code at the desk').fill(code)
	await second.getByRole('button', { name: 'Follow it on this device' }).click()
	await expect(second.getByRole('alert')).toContainText('used already, or its two minutes are over')

	// It opens this one look, and nothing besides: no page of the builder's, nobody else's look, no file or option by itself.
	const mine = new URL(phone.url()).pathname.split('/')[2] ?? ''
	const looks = { data: { kind: 'begin', app: 1, person: 4 }, headers: { origin: new URL(phone.url()).origin } }
	const { token } = (await (await builder.request.post('/bench/looks', looks)).json()) as { token: string }
	const statusOf = async (path: string) => (await context.request.get(path, { maxRedirects: 0 })).status()
	expect(await statusOf(`/as/${mine}/due`)).toBe(200)
	for (const path of [
		'/',
		'/bench/1/screens',
		'/app/1/due',
		'/people',
		'/rows/5',
		'/events?tables=5',
		'/options/3?starts=a'
	])
		expect([path, [303, 401].includes(await statusOf(path))]).toEqual([path, true])
	for (const path of [`/as/${token}/due`, `/options/3?as=${token}`, `/pictures/${'0'.repeat(64)}?as=${token}`])
		expect([path, [303, 401].includes(await statusOf(path))]).toEqual([path, true])
	expect((await context.request.post('/bench/looks', looks)).status()).toBe(401)

	await builder.getByRole('button', { name: 'End it' }).click()
	await phone.reload()
	await expect(phone.getByRole('heading', { name: 'Follow a Lookout here' })).toBeVisible()

	// The same when the builder's own session ends.
	await offer.click()
	const again = (await panel.locator('.code').innerText()).trim()
	await phone.getByLabel('The code at the desk').fill(again.toLowerCase())
	await phone.getByRole('button', { name: 'Follow it on this device' }).click()
	await expect(phone.getByText(/^Lookout: as /)).toBeVisible()
	await builder.getByRole('button', { name: 'Sign out' }).click()
	await builder.waitForURL('**/sign-in**')
	await expect(phone.getByRole('heading', { name: 'Follow a Lookout here' })).toBeVisible()
	for (const each of [builder.context(), context, other]) await each.close()
})
