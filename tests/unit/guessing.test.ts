/** Guessing passwords is slowed, and shuts nobody else out (OWASP ASVS V6: throttling that is no lock-out). */
import { beforeAll, beforeEach, expect, test } from 'vitest'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { addKnown, findKnown } from '$lib/server/sign-in/known-browser.ts'
import { hashPassword } from '$lib/server/sign-in/passwords.ts'
import { signIn } from '$lib/server/sign-in/sign-in.ts'
import type { Store } from '$lib/server/store/store.ts'
import { plainHost } from '../support/plain-host.ts'

const RIGHT = 'kelp ladder quince forty'
const QUARTER = 15 * 60_000

let hash: string
let store: Store
let now: number
/** Tries are counted for as long as the program runs, so each test asks from networks of its own. */
let network = 0

beforeAll(async () => {
	hash = await hashPassword(RIGHT)
})
beforeEach(() => {
	now = Date.parse('2026-11-28T12:00:00Z')
	store = openScratch({ now, tables: [] })
	store.prepare('INSERT INTO account (person, password_hash) VALUES (?, ?)').run(KEEPER, hash)
	network++
})

const KEY = 'ab'.repeat(32)

function enter(password: string, from: string, browser?: string) {
	const host = plainHost(store, { now: () => now, key: KEY })
	const asking = { from: `10.0.${network}.${from}`, agent: '', browser }
	return signIn(host, { email: 'keeper@varrow.example', password, ...asking })
}

async function guess(times: number, from: string): Promise<void> {
	for (let i = 0; i < times; i++) await expect(enter(`guess ${i}`, from)).rejects.toThrow('do not go together')
}

test('after ten wrong ones a network waits a quarter of an hour, even with the right one', async () => {
	await guess(10, '1')
	await expect(enter(RIGHT, '1')).rejects.toThrow('Too many tries')
	now += QUARTER + 1000
	expect(await enter(RIGHT, '1')).toHaveProperty('token')
})

test('whose password is guessed at from elsewhere gets in all the same', async () => {
	await guess(10, '1')
	expect(await enter(RIGHT, '2')).toHaveProperty('token')
})

test('a right one forgets the wrong ones before it', async () => {
	await guess(9, '1')
	expect(await enter(RIGHT, '1')).toHaveProperty('token')
	await guess(9, '1')
})

test('getting in with one’s own account buys no further guesses at others', async () => {
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES (7, 0, 0, 'Thief', 'thief', 'thief@varrow.example', 'thief@varrow.example')`)
	store.prepare('INSERT INTO account (person, password_hash) VALUES (7, ?)').run(hash)
	const host = plainHost(store, { now: () => now })
	const from = `10.0.${network}.1`
	for (let i = 0; i < 60; i++) {
		const email = `nobody${i}@varrow.example`
		await expect(signIn(host, { email, password: 'guess', from, agent: '' })).rejects.toThrow('do not go together')
		const own = { email: 'thief@varrow.example', password: RIGHT, from, agent: '' }
		if (i % 20 === 19 && i < 59) expect(await signIn(host, own)).toHaveProperty('token')
	}
	// From now on each try from there waits its turn, half a second after the one before.
	const began = performance.now()
	await Promise.all([1, 2].map(() => expect(enter('guess', '1')).rejects.toThrow('do not go together')))
	expect(performance.now() - began).toBeGreaterThan(900)
	expect(await enter(RIGHT, '2')).toHaveProperty('token')
})

test('asking at once gains nothing: of two hundred tries ten are looked at', async () => {
	const answers = await Promise.allSettled(Array.from({ length: 200 }, (_try, i) => enter(`guess ${i}`, '1')))
	const said = answers.map((answer) => (answer.status === 'rejected' ? String(answer.reason) : 'in'))
	expect(said.filter((each) => each.includes('do not go together'))).toHaveLength(10)
	expect(said.filter((each) => each.includes('Too many tries'))).toHaveLength(190)
})

test('a network that got very much wrong shuts nobody out who mistyped nothing', async () => {
	const host = plainHost(store, { now: () => now, key: KEY })
	const from = `10.0.${network}.1`
	const wrong = Array.from({ length: 60 }, (_try, i) =>
		signIn(host, { email: `nobody${i}@varrow.example`, password: 'guess', from, agent: '' })
	)
	await Promise.allSettled(wrong)
	expect(await enter(RIGHT, '1')).toHaveProperty('token')
})

test('a browser that signed somebody in before is not shut out by who guesses from the same network', async () => {
	const browser = addKnown(KEY, undefined, KEEPER)
	await guess(10, '1')
	await expect(enter(RIGHT, '1')).rejects.toThrow('Too many tries')
	await expect(enter(RIGHT, '1', addKnown(KEY, undefined, 7))).rejects.toThrow('Too many tries')
	await expect(enter(RIGHT, '1', `forged.${'x'.repeat(43)}`)).rejects.toThrow('Too many tries')
	expect(await enter(RIGHT, '1', browser)).toHaveProperty('token')
	// It has ten tries of its own, and no more.
	for (let i = 0; i < 10; i++) await expect(enter('guess', '2', browser)).rejects.toThrow('do not go together')
	await expect(enter('guess', '3', browser)).rejects.toThrow('Too many tries')
})

test('a shared browser is known to all who signed in there, the last eight of them', () => {
	let mark: string | undefined
	for (let person = 1; person <= 9; person++) mark = addKnown(KEY, mark, person)
	const known = Array.from({ length: 9 }, (_person, i) => findKnown(KEY, mark, i + 1) !== undefined)
	expect(known).toEqual([false, ...Array.from({ length: 8 }, () => true)])
	expect(addKnown(KEY, mark, 5).split('~')).toHaveLength(8)
})

test('each wrong one is written down, without what was typed', async () => {
	await guess(2, '1')
	const kinds = store.prepare(`SELECT kind || body FROM history ORDER BY seq DESC LIMIT 2`).pluck().all() as string[]
	expect(kinds).toHaveLength(2)
	for (const each of kinds) {
		expect(each).toMatch(/sign/)
		expect(each).not.toContain('guess')
	}
})
