/** What starts a routine: crossings, saves, the clock, dates; each once, and none that should not. */
import { beforeEach, describe, expect, test } from 'vitest'
import { changeRows } from '$lib/server/rows/change.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	by,
	DAY,
	DUE,
	HOUR,
	itemOf,
	ITEM,
	ITEMS,
	LEAST,
	messagesOf,
	NOTE,
	NOW,
	openStock,
	release,
	routine,
	runsOf,
	setItem,
	STOCK,
	STORES,
	WIM,
	workOff,
	tell,
	setNote,
	setStock,
	asWriter
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

describe('a crossing', () => {
	test('tells once when the stock falls under its least, and again only after it has risen', () => {
		release(store, [routine({ start: { kind: 'comes', table: ITEMS, where: 'stock < 25' }, steps: [tell] })])
		const told = (value: number) => {
			setStock(store, value)
			workOff(store)
			return messagesOf(store).length
		}
		// 24 is under 25, and 25 is not.
		expect([30, 25, 24, 10, 24, 25, 26, 3].map(told)).toEqual([0, 0, 1, 1, 1, 1, 1, 2])
		expect(messagesOf(store)[0]).toEqual({ person: WIM, subject: 'Shackle is low', body: '24 left of 25' })
	})

	test('of a row that is added is one where it fits at once', () => {
		release(store, [routine({ steps: [tell] })])
		const cells = [{ column: ITEM, value: 'Ring' }, { column: STOCK, value: 1 }, { column: LEAST, value: 2 }] // prettier-ignore
		asWriter(store, () => changeRows(store, [{ kind: 'add', table: ITEMS, cells }], { ...by, through: 'grid' }))
		expect(runsOf(store)).toHaveLength(1)
	})

	test('by a file that is brought in is one for each row, unless that is not wanted; so is a save', () => {
		const where = { table: ITEMS, where: 'stock < 25' }
		release(store, [
			routine({ id: 'a', start: { kind: 'comes', ...where }, steps: [tell] }),
			routine({ id: 'b', start: { kind: 'comes', ...where, but: 'files that come in' }, steps: [tell] }),
			routine({ id: 'c', start: { kind: 'rows', when: 'changed', ...where }, steps: [tell] }),
			routine({ id: 'd', start: { kind: 'rows', when: 'changed', ...where, but: 'files that come in' }, steps: [tell] })
		])
		const begun = (through: 'grid' | 'file Stock.csv', value: number) => {
			const before = runsOf(store).length
			const cells = [{ column: STOCK, value }]
			const change = { kind: 'change' as const, table: ITEMS, row: store.ids.toId(ITEMS, 1), cells }
			asWriter(store, () => changeRows(store, [change], { ...by, through }))
			return store.prepare<string>(`SELECT routine FROM run WHERE id > ? ORDER BY id`).pluck().all(before).join('')
		}
		expect(begun('file Stock.csv', 4)).toBe('ac')
		expect(begun('grid', 40)).toBe('')
		expect(begun('grid', 4)).toBe('abcd')
	})

	test('a change of other columns is none, though the condition holds', () => {
		setStock(store, 3)
		release(store, [routine({ steps: [tell] })])
		setItem(store, 1, [{ column: NOTE, value: 'looked at' }])
		expect(runsOf(store)).toEqual([])
	})

	test.each([
		['due < TODAY()', 'comes true by itself'],
		['COUNT(orders) > 2', 'reads other rows']
	])('to %s keeps a release back: it %s', (where, says) => {
		const routines = [routine({ start: { kind: 'comes', table: ITEMS, where }, steps: [tell] })]
		expect(() => release(store, routines)).toThrow(says)
	})
})

describe('every save while it is so', () => {
	test('starts each time, which a crossing does not', () => {
		const start = { kind: 'rows', table: ITEMS, when: 'changed', where: 'stock < least' } as const
		release(store, [routine({ start, steps: [tell] })])
		for (const value of [3, 4, 5]) setStock(store, value)
		workOff(store)
		expect(messagesOf(store)).toHaveLength(3)
	})
})

describe('by the clock', () => {
	const start = { kind: 'clock', days: 'every Monday', at: '12:00', missed: 'once for all' } as const
	const send = { ...tell, to: '"wim@varrow.example"', subject: 'Monday', body: '' }

	test('Monday noon of the workspace, whatever zone the machine is in; once, and the next week again', () => {
		store = openStock({ timeZone: 'Pacific/Auckland' })
		release(store, [routine({ start, steps: [send] })])
		// Noon of Monday 30 November in Auckland, thirteen hours ahead in summer.
		const noon = Date.parse('2026-11-29T23:00:00Z')
		const sent = [noon - 1, noon, noon + HOUR, noon + 7 * DAY - 1, noon + 7 * DAY].map((now) => {
			workOff(store, now)
			return messagesOf(store).length
		})
		expect(sent).toEqual([0, 1, 1, 1, 2])
	})

	test.each([
		['once for all', 1],
		['each', 3],
		['not at all', 0]
	] as const)('missed ones %s: %i', (missed, wanted) => {
		release(store, [routine({ start: { ...start, missed }, steps: [send] })])
		workOff(store, NOW + 16 * DAY)
		expect(messagesOf(store)).toHaveLength(wanted)
		// A clock set back brings nothing anew.
		workOff(store, NOW + 2 * DAY)
		expect(messagesOf(store)).toHaveLength(wanted)
	})

	test('goes through rows of a table as its role, with nobody as whose doing it was', () => {
		const each = { id: 'e', kind: 'each', table: ITEMS, where: 'stock < 50', lines: [setNote('"counted"')] } as const
		release(store, [routine({ start, acts: STORES, steps: [each] })])
		workOff(store, NOW + 2 * DAY)
		expect([1, 2, 3].map((n) => itemOf(store, n)['note'])).toEqual(['counted', null, null])
		const entry = store.prepare(`SELECT person FROM history WHERE through LIKE 'routine%'`).get()
		expect(entry).toEqual({ person: null })
	})

	test('a step that needs a row keeps a release back outside of any', () => {
		expect(() => release(store, [routine({ start, acts: STORES, steps: [setNote('"x"')] })])).toThrow(
			'There is no row here'
		)
		expect(() => release(store, [routine({ start: { ...start, days: 'now and then' }, steps: [send] })])).toThrow('says no days') // prettier-ignore
	})
})

describe('before a date', () => {
	const start = { kind: 'due', table: ITEMS, many: 3, side: 'before', column: DUE, at: '08:00', where: '' } as const
	const due = (n: number, value: string) => setItem(store, n, [{ column: DUE, value }])
	const told = (now: string) => {
		workOff(store, Date.parse(now))
		return messagesOf(store).map(({ subject }) => subject)
	}

	test('starts for each row on its day, once, and catches up after a stop', () => {
		release(store, [routine({ start, steps: [tell] })])
		due(1, '2026-12-03')
		due(2, '2026-12-06')
		due(3, '2026-12-02')
		expect(told('2026-11-30T07:59:00Z')).toEqual([])
		expect(told('2026-11-30T08:00:00Z')).toEqual(['Shackle is low'])
		expect(told('2026-11-30T09:00:00Z')).toEqual(['Shackle is low'])
		// Down from the first to the fourth of December; the third row's day was past already.
		expect(told('2026-12-04T10:00:00Z')).toEqual(['Shackle is low', 'Chain is low'])
	})

	test('looked for again on the same day, it starts nothing a second time', () => {
		release(store, [routine({ start, steps: [tell] })])
		due(1, '2026-12-03')
		told('2026-11-30T08:00:00Z')
		store.db.exec(`UPDATE routine_clock SET next_at = ${Date.parse('2026-11-30T09:00:00Z')}, last_at = NULL`)
		expect(told('2026-11-30T09:00:00Z')).toHaveLength(1)
	})

	test('a date that moves on starts it again, for the new day', () => {
		release(store, [routine({ start, steps: [tell] })])
		due(1, '2026-12-03')
		told('2026-11-30T08:00:00Z')
		due(1, '2026-12-04')
		expect(told('2026-12-01T08:00:00Z')).toHaveLength(2)
	})
})
