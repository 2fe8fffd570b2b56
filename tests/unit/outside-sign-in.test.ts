/**
 * Signing in through a provider: the flow of OpenID Connect Core 1.0, 3.1, against the stand-in over real HTTP, with a
 * general-purpose client library that checks what the stand-in says.
 */
import { randomBytes } from 'node:crypto'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { addSession, describePerson } from '$lib/server/rights/accounts.ts'
import { comeBack, findVouched, goOut, RETURN_PATH } from '$lib/server/sign-in/outside-sign-in.ts'
import { mayUsePassword } from '$lib/server/credentials/password-use.ts'
import { suspend } from '$lib/server/people/people-changes.ts'
import { addProvider, arriveVouched, openPasswords, removeProvider } from '$lib/server/joining/providers.ts'
import { goOn, signIn } from '$lib/server/sign-in/sign-in.ts'
import type { StandInPerson } from '$lib/server/people/stand-in-people.ts'
import { openStandIn, type StandIn } from '$lib/server/stand-ins/provider.ts'
import { BUILDER, STEWARD } from '$lib/server/rights/system-roles.ts'
import { addWay } from '$lib/server/joining/ways-in.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import type { Store } from '$lib/server/store/store.ts'
import { hashPassword } from '$lib/server/sign-in/passwords.ts'
import { oneListApp } from '../support/one-list-app.ts'
import { plainHost } from '../support/plain-host.ts'

const ORIGIN = 'http://127.0.0.1:4700'
const [MOORINGS, CODE, CLERKS, IMKE, OSRIC] = [2, 10, 5, 2, 3]

const AT_PROVIDER: StandInPerson[] = [
	{ subject: 'a', name: 'Imke Dahl', email: 'imke@varrow.example', vouched: true },
	{ subject: 'b', name: 'Hedda Lisle', email: 'hedda@brig.example', vouched: true },
	{ subject: 'c', name: 'Imke Dahl', email: 'imke@varrow.example', vouched: false },
	{ subject: 'd', name: 'Osric Vane', email: 'osric@varrow.example', vouched: true }
]

let standIn: StandIn
let store: Store
let now: number
const by = () => ({ actor: { person: KEEPER }, now })

const hostOf = () => plainHost(store, { now: () => now, key: KEY, origin: ORIGIN, standIn })
const KEY = randomBytes(32).toString('hex')

beforeAll(async () => {
	standIn = await openStandIn(() => Promise.resolve(AT_PROVIDER), ORIGIN + RETURN_PATH)
})
afterAll(() => standIn.close())

beforeEach(() => {
	// The library checks times against the real clock.
	now = Date.now()
	store = openScratch({
		now,
		tables: [
			{
				id: MOORINGS,
				name: 'Moorings',
				keepers: [KEEPER],
				label: CODE,
				columns: [{ id: CODE, name: 'Code', type: 'code' }]
			}
		],
		roles: [
			{ id: 1, name: 'Everyone', includes: [] },
			{ id: BUILDER, name: 'Builders', includes: [] },
			{ id: STEWARD, name: 'Stewards', includes: [] },
			{ id: CLERKS, name: 'Clerks', includes: [] }
		],
		lines: [{ id: 'a', table: MOORINGS, role: CLERKS, verbs: ['see'], where: '', columns: { kind: 'all' } }]
	})
	store.db.exec(`
		INSERT INTO role_held (person, role) VALUES (${KEEPER}, ${BUILDER});
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES
			(${IMKE}, 0, 0, 'Imke Dahl', 'imke dahl', 'imke@varrow.example', 'imke@varrow.example'),
			(${OSRIC}, 0, 0, 'Osric Vane', 'osric vane', 'osric@varrow.example', 'osric@varrow.example');
		INSERT INTO account (person, password_hash) VALUES (${KEEPER}, 'x'), (${IMKE}, 'x');
		INSERT INTO provider (id, name, issuer, client_id, sealed_secret, made_at) VALUES (7, 'Quay Pass', '', '', '', 0)`)
})
afterEach(() => store.db.close())

/** What the browser does: goes out, chooses somebody, is sent back. */
async function throughProvider(subject: string, given: { door?: number } = {}) {
	const out = await goOut(hostOf(), { provider: 7, then: '/app/1', ...given })
	return { ...out, url: await choose(out.url, subject) }
}

async function choose(out: string, subject: string): Promise<URL> {
	const url = new URL(out)
	expect((await fetch(url)).status).toBe(200)
	url.pathname = '/chosen'
	url.searchParams.set('person', subject)
	const answer = await fetch(url, { redirect: 'manual' })
	expect(answer.status).toBe(303)
	return new URL(answer.headers.get('location') ?? '')
}

describe('coming back from a provider', () => {
	test('who is known by address is that person, and goes on to where they wanted', async () => {
		const came = await comeBack(hostOf(), await throughProvider('a'))
		expect(came).toEqual({ person: IMKE, through: { provider: 'Quay Pass' }, then: '/app/1' })
	})

	test('Core 2: known by its own name for them, also once the address is another', async () => {
		await comeBack(hostOf(), await throughProvider('a'))
		const rename = (person: number, value: string) =>
			changeRows(store, [{ kind: 'change', table: 1, row: store.ids.toId(1, person), cells: [{ column: 2, value }] }], {
				...by(),
				through: 'grid' as const
			})
		rename(IMKE, 'imke.d@varrow.example')
		rename(OSRIC, 'imke@varrow.example')
		expect(await comeBack(hostOf(), await throughProvider('a'))).toMatchObject({ person: IMKE })
	})

	test('Core 5.7: an address that is not vouched for names nobody', async () => {
		const back = await throughProvider('c')
		await expect(comeBack(hostOf(), back)).rejects.toThrow('does not vouch for your address')
	})

	test('somebody who is nobody here is told so, and no row is made', async () => {
		const rows = () => store.prepare('SELECT count(*) FROM t1').pluck().get()
		const before = rows()
		await expect(comeBack(hostOf(), await throughProvider('b'))).rejects.toThrow('Nobody here has the address')
		expect(rows()).toBe(before)
	})

	test('RFC 6749 10.12: a state that this browser did not take out is refused', async () => {
		const [mine, other] = [await throughProvider('a'), await throughProvider('d')]
		await expect(comeBack(hostOf(), { ...other, state: mine.state })).rejects.toThrow('another window')
		await expect(comeBack(hostOf(), { ...other, state: '' })).rejects.toThrow('another window')
	})

	test('RFC 7636: a code that another way out asked for is refused', async () => {
		const [mine, other] = [await throughProvider('a'), await throughProvider('d')]
		mine.url.searchParams.set('code', other.url.searchParams.get('code') ?? '')
		await expect(comeBack(hostOf(), mine)).rejects.toThrow('could not be checked')
	})

	test('RFC 9207: an answer in the name of another issuer is refused', async () => {
		const back = await throughProvider('a')
		back.url.searchParams.set('iss', 'http://127.0.0.1:1')
		await expect(comeBack(hostOf(), back)).rejects.toThrow('could not be checked')
	})

	test('a way out serves once, and for ten minutes', async () => {
		const once = await throughProvider('a')
		await comeBack(hostOf(), once)
		await expect(comeBack(hostOf(), once)).rejects.toThrow('took too long')
		const late = await throughProvider('a')
		now += 601_000
		await expect(comeBack(hostOf(), late)).rejects.toThrow('took too long')
	})

	test('who is suspended gets no session', async () => {
		suspend(store, { person: IMKE, ...by() })
		const came = await comeBack(hostOf(), await throughProvider('a'))
		if (!('person' in came)) throw new Error('Expected somebody known')
		await expect(goOn(hostOf(), { ...came, from: '127.0.0.1', agent: '' })).rejects.toThrow('suspended')
	})

	test('a second step that was set up is asked for all the same', async () => {
		store.db.exec(`INSERT INTO second_factor (person, sealed, confirmed_at) VALUES (${IMKE}, 'x', 1)`)
		const came = await comeBack(hostOf(), await throughProvider('a'))
		if (!('person' in came)) throw new Error('Expected somebody known')
		expect(await goOn(hostOf(), { ...came, from: '127.0.0.1', agent: '' })).toHaveProperty('ticket')
	})

	test('what failed is written down of whoever went out, and nothing of whoever only asks for the page', async () => {
		const entries = () => Number(store.prepare('SELECT count(*) FROM history').pluck().get())
		const before = entries()
		const nowhere = { url: new URL(`${ORIGIN}${RETURN_PATH}?state=x&code=y`), state: 'x' }
		await expect(comeBack(hostOf(), nowhere)).rejects.toThrow('another window')
		expect(entries()).toBe(before)
		await expect(comeBack(hostOf(), await throughProvider('c'))).rejects.toThrow('does not vouch')
		expect(entries()).toBe(before + 1)
	})

	test('a provider that was removed lets nobody in', async () => {
		const back = await throughProvider('a')
		removeProvider(store, { provider: 7, ...by() })
		await expect(comeBack(hostOf(), back)).rejects.toThrow('closed')
	})
})

describe('somebody new at the door of an app', () => {
	let app: number
	beforeEach(() => {
		app = addAppFrom(store, { document: oneListApp('Quayside', MOORINGS, CODE), ...by() })
		releaseApp(store, { app, note: '', ...by() })
		const way = { app, role: CLERKS, team: null, usesLeft: null, endsAt: null, asks: '', words: '' }
		addWay(store, { ...way, kind: 'domain', word: 'brig.example', ...by() })
	})

	test('comes in by the way that fits, without a link by mail, and is known from then on', async () => {
		const came = await comeBack(hostOf(), await throughProvider('b', { door: app }))
		if (!('vouched' in came)) throw new Error('Expected somebody new')
		const vouched = findVouched(hostOf(), came.vouched)
		if (!vouched) throw new Error('Expected to find who was vouched for')
		const person = arriveVouched(store, { app, vouched, code: '', answer: '', phraseIsRight: false, now })
		expect(describePerson(store, person)).toMatchObject({ name: 'Hedda Lisle', roleNames: ['Clerks'] })
		expect(await comeBack(hostOf(), await throughProvider('b'))).toMatchObject({ person })
	})

	test('whose address fits no way stays outside, and no row is made', () => {
		const vouched = { provider: 7, subject: 'z', name: 'Corin', email: 'corin@elsewhere.example' }
		const coming = { app, vouched, code: '', answer: '', phraseIsRight: false, now }
		expect(() => arriveVouched(store, coming)).toThrow('Only addresses at brig.example')
		expect(store.prepare(`SELECT 1 FROM t1 WHERE c2k = 'corin@elsewhere.example'`).get()).toBeUndefined()
	})
})

describe('passwords that are kept for stewards', () => {
	test('serve stewards alone', async () => {
		const hash = await hashPassword('kelp ladder quince forty')
		store.prepare('UPDATE account SET password_hash = ?').run(hash)
		store.db.exec(`UPDATE t1 SET c2 = 'keeper@varrow.example', c2k = 'keeper@varrow.example' WHERE n = ${KEEPER}`)
		const signing = (email: string) =>
			signIn(hostOf(), { email, password: 'kelp ladder quince forty', from: '127.0.0.9', agent: '' })
		expect(await signing('imke@varrow.example')).toHaveProperty('token')
		openPasswords(store, { open: false, ...by() })
		await expect(signing('imke@varrow.example')).rejects.toThrow('stewards alone')
		expect(await signing('keeper@varrow.example')).toHaveProperty('token')
		expect(mayUsePassword(store, { person: undefined })).toBe(false)
	})

	test('need a provider, and keep the last one', () => {
		openPasswords(store, { open: false, ...by() })
		expect(() => removeProvider(store, { provider: 7, ...by() })).toThrow('Open passwords to everybody first')
		openPasswords(store, { open: true, ...by() })
		removeProvider(store, { provider: 7, ...by() })
		expect(() => openPasswords(store, { open: false, ...by() })).toThrow('Add a provider first')
	})

	test('are a steward’s to open and close, and so are providers', () => {
		const imke = { actor: { person: IMKE }, now }
		expect(() => openPasswords(store, { open: false, ...imke })).toThrow('Only stewards')
		const provider = { name: 'X', issuer: 'https://x.example', clientId: 'c', sealedSecret: 's' }
		expect(() => addProvider(store, { ...provider, ...imke })).toThrow('Only stewards')
		expect(() => removeProvider(store, { provider: 7, ...imke })).toThrow('Only stewards')
		addSession(store, {
			tokenHash: 'x',
			person: IMKE,
			now,
			expiresAt: now + 1,
			through: { provider: 'Quay Pass' },
			agent: ''
		})
		expect(store.prepare(`SELECT through FROM history ORDER BY seq DESC LIMIT 1`).pluck().get()).toBe('Quay Pass')
	})
})
