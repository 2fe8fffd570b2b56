/**
 * What a signed-in but hostile client tries: pages shut to visitors under other spellings, streams that outlive their
 * session, another person's drafts on a shared tablet, bodies without end, addresses nobody would write.
 */
import Database from 'better-sqlite3'
import { expect, test, type APIRequestContext } from '@playwright/test'
import { request as httpRequest } from 'node:http'
import { BASE, FILE, numbersOfPeople, signInAs } from './asking.ts'
import { fillInspection } from './inspection.ts'
import { PHONE, signIn } from './people.ts'

const as = (name: string) => signInAs({ name }, numbersOfPeople().get(name) ?? 0)

async function doWithPeople(steward: APIRequestContext, asked: object): Promise<unknown> {
	const answer = await steward.post('/people/do', { data: asked })
	expect(answer.status(), await answer.text()).toBe(200)
	return answer.json()
}

function stored<T>(ask: (db: Database.Database) => T): T {
	const db = new Database(FILE, { readonly: true })
	try {
		return ask(db)
	} finally {
		db.close()
	}
}

test.describe('visitors', () => {
	let steward: APIRequestContext
	let visitor: APIRequestContext
	let way: number

	test.beforeAll(async ({ playwright }) => {
		steward = await as('Ailith Brand')
		const role = stored((db) => {
			const body = db.prepare(`SELECT body FROM document WHERE kind = 'workspace' ORDER BY version DESC`).pluck().get()
			const { roles } = JSON.parse(String(body)) as { roles: { id: number; name: string }[] }
			return roles.find(({ name }) => name === 'Trust manager')?.id
		})
		const asked = { kind: 'open way', app: 2, way: 'visitors', word: '', role, team: null, uses: null }
		way = Number(await doWithPeople(steward, { ...asked, lastDay: null, asks: '', words: '' }))
		visitor = await playwright.request.newContext({ baseURL: BASE, extraHTTPHeaders: { origin: BASE } })
		const visit = await visitor.post('/door/2?/visit', { form: {}, maxRedirects: 0 })
		expect(visit.status()).toBeLessThan(400)
	})
	test.afterAll(async () => {
		await doWithPeople(steward, { kind: 'close way', way })
		await Promise.all([steward.dispose(), visitor.dispose()])
	})

	test('see the app', async () => {
		expect((await visitor.get('/app/2')).status()).toBe(200)
	})

	for (const path of [
		'/me',
		'/%6de',
		'/m%65',
		'/today',
		'/t%6fday',
		'/people',
		'/workspace',
		'/p%65ople',
		'/waiting',
		'/%77aiting',
		'/notices',
		'/n%6ftices',
		'/post',
		'/pos%74'
	])
		for (const end of ['', '/__data.json'])
			test(`do not come to ${path}${end}`, async () => {
				const answer = await visitor.get(`${path}${end}`, { headers: { accept: 'text/html' } })
				const text = await answer.text()
				expect([403, 200]).toContain(answer.status())
				// A page's data carries its own status inside.
				if (answer.status() === 200) expect(text).toMatch(/"status":403/)
				expect(text).toContain('This is for people with an account of their own')
			})

	for (const path of ['/me', '/%6de'])
		for (const [action, form] of [
			['zone', { zone: 'Asia/Tokyo' }],
			['endOthers', {}],
			['endSession', { id: '0'.repeat(16) }],
			['beginFactor', { old: 'x' }],
			['password', { old: 'x', new: 'y' }]
		] as const)
			test(`cannot do ${action} by ${path}`, async () => {
				const answer = await visitor.post(`${path}?/${action}`, { form })
				expect(await answer.text()).toContain('This is for people with an account of their own')
				expect(
					stored((db) =>
						db.prepare('SELECT count(*) FROM person_setting WHERE person IN (SELECT person FROM visitor)').pluck().get()
					)
				).toBe(0)
			})
})

test.describe('streams', () => {
	/** Opens a stream and resolves once it is open; `ended` resolves when it is over. */
	async function listen(api: APIRequestContext): Promise<{ ended: Promise<void> }> {
		const { cookies } = await api.storageState()
		const cookie = cookies.map(({ name, value }) => `${name}=${value}`).join('; ')
		const answer = await fetch(`${BASE}/events?tables=1`, { headers: { cookie } })
		expect(answer.status).toBe(200)
		const reader = answer.body?.getReader()
		await reader?.read()
		const readOn = async (): Promise<void> => {
			while (!(await reader?.read())?.done);
		}
		return { ended: readOn() }
	}

	test('end with the session that opened them, and with no other', async () => {
		const [one, other] = await Promise.all([as('Imke Dahl'), as('Imke Dahl')])
		const [leaving, staying] = [await listen(one), await listen(other)]
		await one.post('/sign-out', { maxRedirects: 0 })
		await leaving.ended
		expect(await Promise.race([staying.ended.then(() => 'ended'), other.get('/').then(() => 'open')])).toBe('open')
		await other.post('/sign-out', { maxRedirects: 0 })
		await staying.ended
	})

	test('end when somebody is suspended', async () => {
		const [steward, diver] = await Promise.all([as('Ailith Brand'), as('Hale Dunmore')])
		const { ended } = await listen(diver)
		const sheet = await (await steward.get('/people/__data.json?starts=Hale')).text()
		const person = /"([\w-]{22})"/.exec(sheet)?.[1]
		await doWithPeople(steward, { kind: 'suspend', person })
		await ended
		await doWithPeople(steward, { kind: 'let back', person })
	})
})

test.describe('what is typed on a shared tablet', () => {
	test('shows to nobody else, and is dropped by signing out only after a word', async ({ browser }) => {
		const page = await signIn(browser, 'Imke Dahl', PHONE)
		const switchTo = async (name: string) => {
			await page.context().clearCookies()
			await page.goto('/sign-in')
			await page.getByRole('button', { name, exact: true }).click()
			await page.waitForURL((url) => url.pathname === '/')
			await page.goto('/app/1/inspect')
		}
		await page.goto('/app/1/inspect')
		await fillInspection(page, 'NH-021', 'Watch')
		// Her session ended without signing out; somebody else takes the tablet.
		await switchTo('Tobiah Lunn')
		await expect(page.getByRole('button', { name: 'Send' })).toBeVisible()
		await expect(page.getByText('Kept from before on this device.')).toBeHidden()
		await expect(page.getByLabel('Mooring')).toHaveValue('')

		await switchTo('Imke Dahl')
		await expect(page.getByText('Kept from before on this device.')).toBeVisible()
		await page.goto('/')
		await page.getByRole('button', { name: 'Sign out' }).click()
		await expect(page.getByRole('alertdialog')).toContainText('One form was begun on this device and not sent.')
		await page.getByRole('button', { name: 'Stay signed in' }).click()
		await expect(page.getByRole('alertdialog')).toBeHidden()
		await page.goto('/app/1/inspect')
		await expect(page.getByLabel('Date')).toHaveValue('23/11/2026')
		await page.goto('/')
		await page.getByRole('button', { name: 'Sign out' }).click()
		await page.getByRole('button', { name: 'Drop it and sign out' }).click()
		await page.waitForURL(/\/sign-in/)
		expect(await page.evaluate(keptForms)).toEqual([])
		await page.context().close()
	})
})

test.describe('bodies', () => {
	/** Sends no more than headers and a first part: the answer must come before the rest. */
	async function begin(path: string, method: string, headers: Record<string, string>): Promise<[number, string]> {
		const builder = await as('Saskia Holm')
		const { cookies } = await builder.storageState()
		const cookie = cookies.map(({ name, value }) => `${name}=${value}`).join('; ')
		await builder.dispose()
		return new Promise((resolve, reject) => {
			const all = { origin: BASE, cookie, 'content-type': 'application/json', ...headers }
			const sent = httpRequest(`${BASE}${path}`, { method, headers: all }, (answer) => {
				let text = ''
				answer.on('data', (part) => (text += String(part)))
				answer.on('end', () => {
					resolve([answer.statusCode ?? 0, text])
					sent.destroy()
				})
			})
			sent.on('error', reject)
			sent.write('{"kind":')
		})
	}

	for (const path of ['/rows/100', '/bench/imports', '/bench/imports/x', '/bench/try', '/me?/zone']) {
		test(`${path}: a long one is refused before it is read`, async () => {
			const [status, text] = await begin(path, 'POST', { 'content-length': String(600 * 1024 * 1024 - 1) })
			expect(status).toBe(413)
			expect(text).toContain('at most 8 MB')
		})
		test(`${path}: one that does not say how long it is, is told to`, async () => {
			const [status, text] = await begin(path, 'POST', { 'transfer-encoding': 'chunked' })
			expect(status).toBe(411)
			expect(text).toContain('Content-Length')
		})
	}
})

const ODD = [
	'NaN',
	'0.5',
	'-1',
	'1e309',
	'',
	'%00',
	'%F0%9F%98%80',
	'__proto__',
	'constructor',
	'%5B%5D',
	'%ED%A0%80',
	'x'.repeat(5_000),
	'99999999999999999999'
]
const ASKED = [
	'limit',
	'skip',
	'after',
	'row',
	'sort',
	'filters',
	'column',
	'starts',
	'format',
	'line',
	'as',
	'tables',
	'since',
	'then',
	'door',
	'from',
	'table',
	'into',
	'find',
	'to',
	'before',
	'show',
	'person',
	'everybody',
	'error',
	'state',
	'name'
]
const PATHS = [
	'/rows/101',
	'/rows/101/anchors',
	'/rows/101/groups',
	'/options/101',
	'/history/101',
	'/export/101',
	'/app/1',
	'/app/1/all',
	'/app/1/all/export',
	'/app/1/all/list',
	'/files/117',
	'/people',
	'/logbook',
	'/bench/1/access',
	'/bench/1/tables/pictures',
	'/bench/1/sources/x',
	'/sign-in',
	'/sign-in/back',
	'/'
]
const PLACES = [
	'/rows/X',
	'/rows/X/anchors',
	'/options/X',
	'/history/X',
	'/export/X',
	'/app/X',
	'/app/1/X',
	'/files/X',
	'/schema/X',
	'/as/X',
	'/door/X',
	'/door/1/X',
	'/join/X',
	'/waiting/X',
	'/waiting/ask/X',
	'/notices/X',
	'/notices/X/file',
	'/post/file?message=X',
	'/bench/X',
	'/bench/X/access',
	'/sign-in/with/X',
	'/bench/imports/X',
	'/X'
]

test('addresses that nobody would write are answered, never with a fault of ours', async () => {
	// Some hundred addresses, each asked several times over.
	test.setTimeout(300_000)
	const apis = [await as('Saskia Holm'), await as('Ailith Brand')]
	const faults: string[] = []
	const ask = async (api: APIRequestContext, path: string) => {
		const answer = await api.get(path, { maxRedirects: 0, headers: { accept: 'text/html' } })
		if (answer.status() >= 500) faults.push(`${answer.status()} ${path.slice(0, 80)}`)
	}
	for (const api of apis) {
		for (const [i, path] of PATHS.entries()) {
			const together = ODD.map((odd) => `${path}?${ASKED.map((name) => `${name}=${odd}`).join('&')}`)
			// One alone as well, since the first that is refused hides those behind it; which oddity takes turns.
			const alone = ASKED.map((name, k) => `${path}?${name}=${ODD[(i + k) % ODD.length]}`)
			await Promise.all([...together, ...alone].map((each) => ask(api, each)))
		}
		for (const place of PLACES)
			await Promise.all(ODD.filter((odd) => odd !== '').map((odd) => ask(api, place.replace('X', odd))))
		await api.dispose()
	}
	expect(faults).toEqual([])
})

const AWAY = [
	'//evil.example',
	'/\\evil.example',
	'\\\\evil.example',
	'/\t/evil.example',
	'https://evil.example',
	'/a\\b',
	'/ü?x=ü',
	'javascript:alert(1)',
	'/..//evil.example',
	'/%0d%0aset-cookie:x=1'
]
for (const then of AWAY)
	test(`going on to ${JSON.stringify(then)} leads nowhere else`, async () => {
		const api = await as('Imke Dahl')
		const answer = await api.get(`/sign-in?then=${encodeURIComponent(then)}`, { maxRedirects: 0 })
		expect(answer.status()).toBe(303)
		const to = new URL(answer.headers()['location'] ?? '', BASE)
		expect(to.origin).toBe(BASE)
		await api.dispose()
	})

/** What the device's store of forms holds. */
function keptForms(): Promise<unknown[]> {
	return new Promise((resolve, reject) => {
		const opening = indexedDB.open('tin-shed')
		opening.onerror = () => reject(new Error('Cannot open the store of forms'))
		opening.onsuccess = () => {
			const all = opening.result.transaction('forms').objectStore('forms').getAllKeys()
			all.onsuccess = () => resolve(all.result)
		}
	})
}
