/** What a new row gets by itself: numbers of a series, and defaults where nothing was filled in. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { CellInput } from '$lib/core/query/change.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { ColumnEntry } from '$lib/core/workspace/document.ts'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'

const NOW = Date.parse('2026-11-28T23:30:00Z')
const CALLS = 3
const [WHAT, NO, TRIP] = [30, 31, 32]
const IMKE = 2

let store: Store

/** Calls with one further column; Imke may add and see them, but is granted nothing beyond what they are about. */
function open(...columns: ColumnEntry[]): void {
	store = openScratch({
		now: NOW,
		peopleColumns: [{ id: 9, name: 'wing', type: 'text' }],
		roles: [{ id: 10, name: 'Crew', includes: [] }],
		lines: [
			{ id: 'a', table: CALLS, role: 10, verbs: ['see'], where: '', columns: { kind: 'all' } },
			{ id: 'b', table: CALLS, role: 10, verbs: ['add'], where: '', columns: { kind: 'only', columns: [WHAT] } }
		],
		tables: [
			{
				...{ id: CALLS, name: 'calls', keepers: [KEEPER], label: WHAT },
				columns: [{ id: WHAT, name: 'what', type: 'text' }, ...columns]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c9, c9k)
			VALUES (${IMKE}, 0, 0, 'Imke', 'imke', 'i@x.example', 'i@x.example', 'East', 'east');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, 10);
		UPDATE access_epoch SET n = n + 1`)
	store.forget()
}

function add(values: Record<number, CellInput> = {}, { person = KEEPER, now = NOW } = {}): number {
	const cells = Object.entries(values).map(([column, value]) => ({ column: Number(column), value }))
	const [changed] = store.db.transaction(() =>
		changeRows(store, [{ kind: 'add', table: CALLS, cells }], { actor: { person }, now, through: 'grid' })
	)()
	return store.ids.fromId(CALLS, changed?.row ?? '') ?? 0
}

/** What stands in a column of the row that was added last. */
const lastOf = (column: number) =>
	store.prepare(`SELECT c${column} FROM t${CALLS} ORDER BY n DESC LIMIT 1`).pluck().get()
const withDefault = (type: ColumnEntry['type'], otherwise: string, more: Partial<ColumnEntry> = {}) =>
	open({ id: TRIP, name: 'trip', type, otherwise, ...more })

describe('a default', () => {
	test.each<[ColumnEntry['type'], string, unknown, Partial<ColumnEntry>?]>([
		['text', '"quay"', 'quay'],
		['whole number', '2 + 3', 5],
		['yes/no', 'true', 1],
		['date', 'TODAY()', '2026-11-28'],
		// A choice is kept by its place.
		['choice', '"low"', 2, { choices: ['high', 'low'] }],
		['text', 'me.wing', 'East'],
		['reference', 'me', IMKE, { to: PEOPLE_TABLE, reverseName: 'calls' }],
		// What does not fit its column, is in error or comes to nothing is as none.
		['whole number', '"many"', null],
		['choice', '"middling"', null, { choices: ['high', 'low'] }],
		['whole number', '1 / 0', null],
		['text', '""', null],
		['text', 'what', null],
		['reference', '"Imke"', null, { to: PEOPLE_TABLE, reverseName: 'calls' }]
	])('of %s by %s is %o', (type, formula, expected, more) => {
		withDefault(type, formula, more)
		add({}, { person: IMKE })
		expect(lastOf(TRIP)).toBe(expected)
	})

	test('is found like what was typed', () => {
		withDefault('text', '"Quay"')
		add()
		const filters = [{ column: TRIP, is: 'equal' as const, text: 'quay' }]
		const { rows } = readRows(store, { person: KEEPER }, { table: CALLS, columns: [TRIP], filters }, NOW)
		expect(rows.map(({ cells }) => cells[cellKey(TRIP)])).toEqual(['Quay'])
	})

	test('gives way to what was sent, and takes the place of a blank that was', () => {
		withDefault('text', '"quay"')
		add({ [TRIP]: 'slip' })
		expect(lastOf(TRIP)).toBe('slip')
		add({ [TRIP]: '' })
		expect(lastOf(TRIP)).toBe('quay')
		add({ [TRIP]: null, [WHAT]: 'rope' })
		expect([lastOf(TRIP), lastOf(WHAT)]).toEqual(['quay', 'rope'])
	})

	test('reads what else was sent', () => {
		withDefault('text', 'what')
		add({ [WHAT]: 'rope' })
		expect(lastOf(TRIP)).toBe('rope')
	})

	test('is for new rows alone', () => {
		withDefault('text', '"quay"')
		const n = add({ [TRIP]: 'slip' })
		const cells = [{ column: TRIP, value: null }]
		const change = { kind: 'change' as const, table: CALLS, row: store.ids.toId(CALLS, n), cells }
		changeRows(store, [change], { actor: { person: KEEPER }, now: NOW, through: 'grid' })
		expect(lastOf(TRIP)).toBeNull()
	})
})

describe('a numbering', () => {
	const YEARLY: ColumnEntry = { id: NO, name: 'no', type: 'text', numbering: 'C-{year}-{000}' }

	beforeEach(() => open(YEARLY))

	test('counts up, in each year from one, whoever adds', () => {
		const numbers = [
			add(),
			add({}, { person: IMKE }),
			add({}, { now: Date.parse('2027-01-01T00:00:00Z') }),
			add({}, { now: Date.parse('2027-03-01T00:00:00Z') })
		].map((n) => store.prepare(`SELECT c${NO} FROM t${CALLS} WHERE n = ?`).pluck().get(n))
		expect(numbers).toEqual(['C-2026-001', 'C-2026-002', 'C-2027-001', 'C-2027-002'])
	})

	test('goes on from the greatest that stands there, of its own series only', () => {
		store.db.exec(`
			INSERT INTO t${CALLS} (n, made_at, changed_at, c${NO}, c${NO}k) VALUES
				(1, 0, 0, 'C-2026-041', 'c-2026-041'), (2, 0, 0, 'C-2026-007', 'c-2026-007'),
				(3, 0, 0, 'C-2025-900', 'c-2025-900'), (4, 0, 0, NULL, NULL)`)
		add()
		expect(lastOf(NO)).toBe('C-2026-042')
		// From then on it is counted, not looked for.
		store.db.exec(`UPDATE t${CALLS} SET c${NO} = 'C-2026-500' WHERE n = 1`)
		add()
		expect(lastOf(NO)).toBe('C-2026-043')
	})

	test('is given again where the addition failed', () => {
		const failing = store.db.transaction(() => {
			add()
			throw new Error('something else went wrong')
		})
		expect(failing).toThrow('something else')
		add()
		expect(lastOf(NO)).toBe('C-2026-001')
	})

	test('goes before a default of the same column', () => {
		open({ ...YEARLY, otherwise: '"none"' }, { id: TRIP, name: 'trip', type: 'text', otherwise: '"quay"' })
		add()
		expect([lastOf(NO), lastOf(TRIP)]).toEqual(['C-2026-001', 'quay'])
	})
})
