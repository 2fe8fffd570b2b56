/** Routines that start with a decision of their app, and rows that are added only where none is there yet. */
import { beforeEach, describe, expect, test } from 'vitest'
import { APP_FORMAT, appSchema, type AppInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { decideCase, listCases, readCase } from '$lib/server/signoffs/cases.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	asWriter,
	by,
	HELD_BY,
	IMKE,
	ITEM,
	ITEMS,
	messagesOf,
	NOTE,
	NOW,
	OF,
	openStock,
	ORDERS,
	ordersOf,
	release,
	REMARK,
	routine,
	runsOf,
	setItem,
	setStock,
	STOCK,
	STORES,
	tell,
	WIM,
	workOff
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

describe('a routine that starts with a decision', () => {
	const signoff = {
		...{ id: 'so', name: 'Low stock sign-off', table: ITEMS, where: 'stock < least', decider: "'held by'" },
		...{ columns: [ITEM, STOCK, HELD_BY], children: [] }
	}
	const decided = { kind: 'decided' as const, table: ITEMS, as: 'approved' as const, where: '' }

	function releaseWith(routines: AppInput['routines'], signoffs: AppInput['signoffs'] = [signoff]): number {
		const none = { about: '', colour: 'sea' as const, screens: [{ id: 's', title: 'S', lines: [] }] }
		const document = appSchema.parse({ format: APP_FORMAT, name: 'Stock', routines, signoffs, ...none })
		return asWriter(store, () => {
			const app = addAppFrom(store, { document, ...by })
			releaseApp(store, { app, note: '', ...by })
			return app
		})
	}

	function decide(move: 'approve' | 'decline'): void {
		const actor = { person: WIM }
		const [waiting] = listCases(store, { actor, now: NOW }).waiting
		const id = waiting?.id ?? ''
		const { fingerprint } = readCase(store, { id, actor, now: NOW })
		asWriter(store, () => decideCase(store, { id, move, comment: '', fingerprint, actor, now: NOW }))
		workOff(store)
	}
	const subjects = () => messagesOf(store).map(({ subject }) => subject)

	test('a step begins a sign-off on the row, once, asked by whoever caused it', () => {
		const asked = { ...signoff, where: 'FALSE' }
		const begin = { id: 'b', kind: 'signoff', signoff: 'so' } as const
		releaseWith([routine({ steps: [begin, { ...begin, id: 'again' }] })], [asked])
		setStock(store, 4)
		workOff(store)
		expect(listCases(store, { actor: { person: WIM }, now: NOW }).waiting).toMatchObject([
			{ name: 'Low stock sign-off' }
		])
		expect(store.prepare('SELECT asked_by AS person FROM signoff_case').all()).toEqual([{ person: IMKE }])
		expect(runsOf(store)).toMatchObject([{ state: 'done', error: null }])
	})

	test('a sign-off that nobody could decide gives the run up, with the words', () => {
		const asked = { ...signoff, where: 'FALSE', decider: '"nobody@varrow.example"' }
		releaseWith([routine({ steps: [{ id: 'b', kind: 'signoff', signoff: 'so' }] })], [asked])
		setStock(store, 4)
		workOff(store)
		expect(runsOf(store)).toMatchObject([{ state: 'given up', error: expect.stringContaining('nobody is named who could decide') }]) // prettier-ignore
	})

	test.each([
		['of none', '', [signoff], 'Say which sign-off it begins'],
		['of rows of another table', 'so', [{ ...signoff, table: ORDERS, columns: [REMARK], decider: '"wim@varrow.example"', where: '' }], 'decides on rows of orders, and here stands one of items'] // prettier-ignore
	])('a step that begins a sign-off %s is refused before a release', (_what, id, signoffs, says) => {
		const none = { about: '', colour: 'sea' as const, screens: [{ id: 's', title: 'S', lines: [] }] }
		const routines = [routine({ steps: [{ id: 'b', kind: 'signoff', signoff: id }] })]
		const document = appSchema.parse({ format: APP_FORMAT, name: 'Stock', routines, signoffs, ...none })
		expect(checkApp(document, store.workspace()).map(({ message }) => message).join(' ')).toContain(says) // prettier-ignore
	})

	test.each([
		['approved', 'approve', 1],
		['declined', 'approve', 0],
		['declined', 'decline', 1],
		['approved or declined', 'approve', 1],
		['approved or declined', 'decline', 1]
	] as const)('%s: after %s it starts %d times', (as, move, times) => {
		releaseWith([routine({ start: { ...decided, as }, steps: [tell] })])
		setStock(store, 4)
		workOff(store)
		expect(runsOf(store)).toEqual([])
		decide(move)
		expect(subjects().filter((subject) => subject === 'Shackle is low')).toHaveLength(times)
	})

	test('only where its condition holds, and only of its own app', () => {
		releaseWith([routine({ start: { ...decided, where: 'stock > 10' }, steps: [tell] })])
		releaseWith([routine({ start: decided, steps: [tell] })], [])
		setStock(store, 4)
		decide('approve')
		expect(runsOf(store)).toEqual([])
	})

	test('acts as its role on other rows; what was decided stays closed', () => {
		const order = { id: 'a', kind: 'add' as const, table: ORDERS }
		const lines = [{ id: 'l', kind: 'link' as const, column: OF }]
		const note = { id: 'n', kind: 'set' as const, column: NOTE, formula: '"ordered"' }
		releaseWith([routine({ start: decided, acts: STORES, steps: [{ ...order, lines }, note] })])
		setStock(store, 4)
		decide('approve')
		expect(ordersOf(store)).toMatchObject([{ of: 1 }])
		expect(runsOf(store)).toMatchObject([{ state: 'given up', error: expect.stringContaining('has been approved') }])
	})
})

describe('a row that is added unless there is one', () => {
	const add = (unless: string) => ({
		...{ id: 'a', kind: 'add' as const, table: ORDERS, unless },
		lines: [
			{ id: 'l', kind: 'link' as const, column: OF },
			{ id: 'c', kind: 'cell' as const, column: REMARK, formula: 'item' }
		]
	})
	const low = (n: number, value: number) => setItem(store, n, [{ column: STOCK, value }], IMKE)

	test('of the row at hand is added once, however often it comes to that', () => {
		release(store, [routine({ acts: STORES, steps: [add('of = this')] })])
		for (const value of [4, 40, 3]) low(1, value)
		low(2, 1)
		workOff(store)
		expect(ordersOf(store)).toMatchObject([
			{ of: 1, remark: 'Shackle' },
			{ of: 2, remark: 'Chain' }
		])
		expect(runsOf(store).map(({ state }) => state)).toEqual(['done', 'done', 'done'])
	})

	test('goes by the rows that whoever acts sees', () => {
		release(store, [routine({ acts: STORES, steps: [add('remark = "hidden"')] })])
		store.db.exec(`INSERT INTO t3 (n, made_at, changed_at, c30, c32, c32k) VALUES (9, 0, 0, 2, 'hidden', 'hidden')`)
		low(1, 4)
		workOff(store)
		expect(ordersOf(store)).toHaveLength(1)
	})
})
