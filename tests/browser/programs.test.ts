/** Another program and this one: a steward gives it a secret, it asks for a routine, and is called at a press. */
import AxeBuilder from '@axe-core/playwright'
import { expect, request, test, type Page } from '@playwright/test'
import { createHash, createHmac } from 'node:crypto'
import { BASE } from './asking.ts'
import { signIn } from './people.ts'

const alive = (page: Page) => expect(page.locator('#svelte-announcer')).toBeAttached()

interface Key {
	readonly id: string
	readonly secret: string
}

const COVERED = ['@method', '@authority', '@path', '@query', 'content-type', 'content-digest', 'idempotency-key']

/** Signs as RFC 9421 has it, by nothing of ours. */
function signed(path: string, body: string, { id, secret }: Key, idempotencyKey: string): Record<string, string> {
	const url = new URL(path, BASE)
	const digest = `sha-256=:${createHash('sha256').update(body).digest('base64')}:`
	const values = ['POST', url.host, url.pathname, '?', 'application/json', digest, idempotencyKey]
	const parameters = `(${COVERED.map((name) => `"${name}"`).join(' ')});created=${Math.floor(Date.now() / 1000)};keyid="${id}"`
	const lines = COVERED.map((name, i) => `"${name}": ${values[i] ?? ''}`)
	const base = [...lines, `"@signature-params": ${parameters}`].join('\n')
	const mac = createHmac('sha256', Buffer.from(secret, 'base64')).update(base).digest('base64')
	return {
		...{ 'content-type': 'application/json', 'content-digest': digest, 'idempotency-key': idempotencyKey },
		...{ 'signature-input': `chandlery=${parameters}`, signature: `chandlery=:${mac}:` }
	}
}

/** A new secret of the demo's program, read off the steward's page. */
async function newKey(steward: Page): Promise<Key> {
	await steward.goto('/workspace')
	await alive(steward)
	await steward.getByRole('button', { name: 'New secret' }).first().click()
	const given = steward.getByRole('status').filter({ hasText: 'It is shown this once' })
	await expect(given).toBeVisible()
	const [id = '', secret = ''] = await given.locator('dd').allTextContents()
	return { id, secret }
}

const PATH = '/request/3/coming'
const BODY = JSON.stringify({ code: 'VQ-0003', count: 24, day: '2027-01-12' })

test('another program asks by its signature alone, and the storekeeper is told once', async ({ browser }) => {
	const steward = await signIn(browser, 'Ailith Brand')
	const key = await newKey(steward)
	const { violations } = await new AxeBuilder({ page: steward }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	// What they are told comes into the page that they have open.
	const keeper = await signIn(browser, 'Wim Pascoe-Reyes')
	const listens = keeper.waitForResponse((answer) => answer.url().includes('/events'))
	await keeper.goto('/notices')
	await listens
	const outside = await request.newContext({ baseURL: BASE })
	const ask = (body: string, headers: Record<string, string>) => outside.post(PATH, { data: body, headers })

	const first = await ask(BODY, signed(PATH, BODY, key, 'delivery 7'))
	expect(first.status()).toBe(202)
	const again = await ask(BODY, signed(PATH, BODY, key, 'delivery 7'))
	expect(await again.json()).toEqual(await first.json())

	const altered = await ask(BODY.replace('24', '25'), signed(PATH, BODY, key, 'delivery 8'))
	expect([altered.status(), altered.headers()['content-type']]).toEqual([401, 'application/problem+json'])
	const unknown = await ask(BODY, signed(PATH, BODY, { ...key, secret: 'AAAA' }, 'delivery 8'))
	expect(unknown.status()).toBe(401)
	expect((await ask(BODY, { 'content-type': 'application/json' })).status()).toBe(401)
	const elsewhere = await outside.post('/request/3/low', { data: BODY, headers: signed('/request/3/low', BODY, key, 'delivery 8') }) // prettier-ignore
	expect(elsewhere.status()).toBe(404)
	const wrong = JSON.stringify({ code: 'VQ-0003', count: 'many', day: '2027-01-12' })
	const refused = await ask(wrong, signed(PATH, wrong, key, 'delivery 8'))
	expect(refused.status()).toBe(422)
	expect(((await refused.json()) as { detail: string }).detail).toContain('count')
	await outside.dispose()

	await expect(keeper.getByRole('heading', { name: /^24 of .+ come on 12 Jan 2027$/ })).toHaveCount(1)
	await keeper.context().close()
	await steward.context().close()
})

test('a press calls the other program, signed, and a builder reads how it is asked', async ({ browser }) => {
	const keeper = await signIn(browser, 'Wim Pascoe-Reyes')
	await keeper.goto('/app/3/stock')
	await alive(keeper)
	await keeper.getByRole('main').getByRole('link', { name: /Dee shackle/ }).first().click() // prettier-ignore
	await keeper.getByRole('button', { name: 'Order a pack' }).click()
	await expect(keeper.getByText(/Dee shackle .+ is being ordered: one pack of/)).toBeVisible()

	const builder = await signIn(browser, 'Saskia Holm')
	const call = builder.getByRole('article').filter({ hasText: 'POST https://orders.chandlery.example/in/orders' })
	await expect(async () => {
		await builder.goto('/post')
		await expect(call.first()).toContainText('"code": "VQ-', { timeout: 1_000 })
	}).toPass()
	await expect(call.first()).toContainText('keyid="chandlery-')

	await builder.goto('/bench/3/routines?routine=coming')
	await alive(builder)
	await expect(builder.getByText(`${BASE}${PATH}`)).toBeVisible()
	const given = builder.waitForEvent('download')
	await builder.getByRole('button', { name: /OpenAPI/ }).click()
	expect((await given).suggestedFilename()).toBe('Goods are on their way.openapi.json')
	const { violations } = await new AxeBuilder({ page: builder }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	await builder.context().close()
	await keeper.context().close()
})

test('a program is added and removed by stewards alone', async ({ browser }) => {
	const steward = await signIn(browser, 'Ailith Brand')
	await steward.goto('/workspace')
	await alive(steward)
	await steward.getByLabel('Add a program, called').fill('Chandlery')
	await steward.getByLabel('Its address').fill('https://tides.varrow.example')
	await steward.getByRole('button', { name: 'Add it' }).click()
	await expect(steward.getByText('There is a program that is called Chandlery already.')).toBeVisible()
	// What was typed is still there.
	await expect(steward.getByLabel('Its address')).toHaveValue('https://tides.varrow.example')
	await steward.getByLabel('Add a program, called').fill('Tide gauge')
	await steward.getByRole('button', { name: 'Add it' }).click()
	await expect(steward.getByText('The secret of Tide gauge.')).toBeVisible()
	const gauge = steward.getByRole('listitem').filter({ hasText: 'Tide gauge' })
	await gauge.getByRole('button', { name: 'Remove' }).click()
	await expect(gauge).toHaveCount(0)
	const builder = await signIn(browser, 'Saskia Holm')
	expect((await builder.goto('/workspace'))?.status()).toBe(403)
	await builder.context().close()
	await steward.context().close()
})
