/** Roles that routines ask for: given by nobody but who may, and never by who set it off or released it. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import { decideAccessRequest, listAccessRequests } from '$lib/server/joining/access-requests.ts'
import { readPersonRow, rolesOf } from '$lib/server/rights/roles-held.ts'
import { STEWARD } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	asWriter,
	by,
	CREW,
	documentOfRoutines,
	HELD_BY,
	IMKE,
	messagesOf,
	NOW,
	openStock,
	release,
	routine,
	runsOf,
	setItem,
	setStock,
	STORES,
	WIM,
	workOff
} from '../support/quay-stock.ts'

const [AILITH, BRAM] = [7, 8]
const KEEPER = by.actor.person
let store: Store
beforeEach(() => {
	store = openStock()
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES
			(${AILITH}, 0, 0, 'Ailith', 'ailith', 'ailith@varrow.example', 'ailith@varrow.example'),
			(${BRAM}, 0, 0, 'Bram', 'bram', 'bram@varrow.example', 'bram@varrow.example');
		INSERT OR IGNORE INTO role_held (person, role) VALUES (${AILITH}, ${STEWARD}), (${BRAM}, ${CREW}), (${KEEPER}, ${STEWARD})`)
})

const ask = {
	id: 'a',
	kind: 'role',
	to: '"bram@varrow.example"',
	role: STORES,
	words: 'He counts the shelves now.'
} as const
const waiting = (person: number) => listAccessRequests(store, { actor: { person } })
const roles = (person: number) => rolesOf(store, person, readPersonRow(store, person))
const decide = (person: number, letIn = true) => {
	const id = waiting(person)[0]?.id ?? 0
	asWriter(store, () => decideAccessRequest(store, { id, letIn, actor: { person }, now: NOW }))
}

function begin(
	steps: readonly (Omit<typeof ask, 'id' | 'to'> & { id: string; to: string })[] = [ask],
	person = IMKE
): void {
	release(store, [routine({ steps: [...steps] })])
	setStock(store, 4, 1, person)
	workOff(store)
}

describe('a role that a routine asks for', () => {
	test('waits with stewards, who are told why; it is given by one of them, and the person is told', () => {
		begin()
		expect(roles(BRAM).has(STORES)).toBe(false)
		expect(waiting(AILITH)).toMatchObject([{ name: 'Bram', gives: 'Stores keepers', asks: 'A routine asks for it:', answer: ask.words, roles: [] }]) // prettier-ignore
		expect(messagesOf(store)).toMatchObject([{ person: AILITH, subject: 'Bram is to be Stores keepers', body: ask.words }]) // prettier-ignore
		decide(AILITH)
		expect(roles(BRAM).has(STORES)).toBe(true)
		expect(messagesOf(store).at(-1)).toMatchObject({ person: BRAM, subject: 'You are Stores keepers now' })
		expect(runsOf(store)).toMatchObject([{ state: 'done' }])
	})

	test('is not for whoever released the routine to decide, steward or not', () => {
		begin()
		expect(waiting(KEEPER)).toEqual([])
		expect(() => decide(KEEPER)).toThrow('not yours to let them in')
	})

	test('nor for whoever set it off, nor for the person themselves', () => {
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${IMKE}, ${STEWARD}), (${BRAM}, ${STEWARD})`)
		begin()
		expect(waiting(IMKE)).toEqual([])
		expect(waiting(BRAM)).toEqual([])
		expect(messagesOf(store).map(({ person }) => person)).toEqual([AILITH])
		expect(() => decide(IMKE)).toThrow('not yours to let them in')
	})

	test('may be given by who may pass it on', () => {
		store.db.exec(`UPDATE role_held SET may_pass_on = 1 WHERE person = ${WIM} AND role = ${STORES}`)
		begin()
		expect(messagesOf(store).map(({ person }) => person).toSorted()).toEqual([WIM, AILITH].toSorted()) // prettier-ignore
		decide(WIM)
		expect(roles(BRAM).has(STORES)).toBe(true)
	})

	test('refused, it is not given, and nobody is told of it', () => {
		begin()
		decide(AILITH, false)
		expect(roles(BRAM).has(STORES)).toBe(false)
		expect(messagesOf(store)).toHaveLength(1)
		expect(waiting(AILITH)).toEqual([])
	})

	test.each([
		['that they hold', { to: '"wim@varrow.example"' }],
		['of nobody', { to: '"nobody@varrow.example"' }]
	])('for somebody %s is asked of nobody', (_what, parts) => {
		begin([{ ...ask, ...parts }])
		expect(waiting(AILITH)).toEqual([])
		expect(messagesOf(store)).toEqual([])
	})

	test('is asked for once, however often it comes to it', () => {
		begin([ask, { ...ask, id: 'b' }])
		setItem(store, 1, [{ column: HELD_BY, value: null }])
		expect(waiting(AILITH)).toHaveLength(1)
	})
})

test.each([
	['of none', { role: 999 }, 'The role that it asks for is gone'],
	['without a word', { words: ' ' }, 'Say why'],
	['for no person', { to: '1 + 1' }, 'person']
])('asking for a role %s is refused before a release', (_what, parts, says) => {
	const document = documentOfRoutines([routine({ steps: [{ ...ask, ...parts }] })])
	expect(checkApp(document, store.workspace()).map(({ message }) => message).join(' ')).toContain(says) // prettier-ignore
})
