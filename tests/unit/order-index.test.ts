/**
 * Long tables get an index for an order that was asked for and none served, and the database learns how values are spread:
 * the plans are read from SQLite itself, and the rows are the same before and after.
 */
import { beforeAll, describe, expect, test } from 'vitest'
import { planPage } from '$lib/core/query/plan.ts'
import { getColumn, getTable } from '$lib/core/model/table.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { standingOf } from '$lib/server/rights/rights-of-actor.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'
import { LARGE, makeOrderIndex } from '$lib/server/derived/order-index.ts'
import { createIndexes } from '$lib/server/store/schema.ts'
import { takeStatistics } from '$lib/server/derived/table-statistics.ts'
import { tendIndexes } from '$lib/server/derived/tend-indexes.ts'
import { seeLine } from '../support/see-line.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const [BERTHS, CALLS, FEW, CLERK, CORRIE] = [2, 3, 4, 10, 2]
const [BOAT, LENGTH, DAY, STATE, BERTH, TWICE, ROOM, LATE] = [30, 31, 32, 33, 34, 35, 36, 37]
/** Kept back from clerks. */
const UNSEEN = 58
const ROWS = LARGE + 1_000
let store: Store

beforeAll(() => {
	store = openScratch({
		now: NOW,
		peopleColumns: [{ id: 3, name: 'berth', type: 'reference', to: BERTHS }],
		roles: [{ id: CLERK, name: 'Clerks', includes: [] }],
		lines: [seeLine(CALLS)('a', CLERK, 'berth = me.berth', [UNSEEN])],
		tables: [
			{ id: BERTHS, name: 'berths', keepers: [KEEPER], label: 20, columns: [{ id: 20, name: 'name', type: 'text' }] },
			{
				id: CALLS,
				name: 'calls',
				keepers: [KEEPER],
				label: BOAT,
				columns: [
					{ id: BOAT, name: 'boat', type: 'text' },
					{ id: LENGTH, name: 'length', type: 'whole number' },
					{ id: DAY, name: 'day', type: 'date' },
					{ id: STATE, name: 'state', type: 'choice', choices: ['Expected', 'Moored'] },
					{ id: BERTH, name: 'berth', type: 'reference', to: BERTHS },
					{ id: TWICE, name: 'twice', type: 'computed', formula: 'length * 2' },
					{ id: ROOM, name: 'roomy', type: 'computed', formula: 'length < 9' },
					{ id: LATE, name: 'late', type: 'computed', formula: 'day < TODAY()' },
					...Array.from({ length: 9 }, (_, i) => ({ id: 50 + i, name: `part ${i}`, type: 'whole number' as const }))
				]
			},
			{
				id: FEW,
				name: 'few',
				keepers: [KEEPER],
				label: 40,
				columns: [
					{ id: 40, name: 'name', type: 'text' },
					{ id: 41, name: 'length', type: 'whole number' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c3) VALUES (${CORRIE}, 0, 0, 'Corrie', 'corrie', 2);
		INSERT INTO role_held (person, role) VALUES (${CORRIE}, ${CLERK});
		INSERT INTO t2 (made_at, changed_at, c20, c20k) VALUES (0, 0, 'A', 'a'), (0, 0, 'B', 'b'), (0, 0, 'C', 'c'), (0, 0, 'D', 'd');
		INSERT INTO t4 (made_at, changed_at, c40, c40k, c41) VALUES (0, 0, 'one', 'one', 1);
		WITH RECURSIVE i(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < ${ROWS})
		INSERT INTO t3 (made_at, changed_at, c30, c30k, c31, c32, c33, c34, c35)
		SELECT 0, 0, 'Boat ' || n, 'boat ' || n, n * 7919 % 1000, date('2020-01-01', n * 31 % 2000 || ' days'), n % 2 + 1, n % 4 + 1, 2 * (n * 7919 % 1000) FROM i`)
	createIndexes(store.db, getTable(store.workspace().catalogue, CALLS))
})

const read = (table: number, column: number, person = KEEPER) =>
	readRows(store, { person }, { table, sort: { column, descending: true }, limit: 20 }, NOW).rows.map(({ id }) => id)

/** The orders that reading by a column leaves wanting. */
function wantedBy(table: number, column: number, person = KEEPER) {
	store.wanted.clear()
	read(table, column, person)
	return [...store.wanted.values()]
}

/** How SQLite goes about the first page of calls by a column. */
function planOf(column: number, person = KEEPER): string[] {
	const { catalogue } = store.workspace()
	const table = getTable(catalogue, CALLS)
	const { rights } = standingOf(store, { person }, NOW)
	const sort = { column: getColumn(table, column), descending: true }
	const [query] = planPage({ table, columns: [sort.column], where: [], sort }, { catalogue, rights }).branches
	const rows = store.db.prepare(`EXPLAIN QUERY PLAN ${query?.text}`).all(...(query?.params ?? []))
	return rows.map((row) => (row as { detail: string }).detail)
}

describe('an order that no index serves', () => {
	test.each([
		['a number', LENGTH],
		['a date', DAY],
		['a computed number that is kept', TWICE]
	])('is noted and then served: %s', (_what, column) => {
		const before = read(CALLS, column)
		expect(planOf(column).join()).toContain('TEMP B-TREE')
		expect(wantedBy(CALLS, column)).toEqual([{ table: CALLS, column }])
		expect(makeOrderIndex(store, { table: CALLS, column })).toBe(true)
		expect(planOf(column)).toEqual([`SEARCH r USING INDEX i3_${column} (c${column}>?)`])
		expect(read(CALLS, column)).toEqual(before)
		expect(wantedBy(CALLS, column)).toEqual([])
		expect(makeOrderIndex(store, { table: CALLS, column })).toBe(false)
	})

	test.each([
		['its own label has an index', CALLS, BOAT],
		['few values', CALLS, STATE],
		['a reference, which is ordered by labels elsewhere', CALLS, BERTH],
		['a computed yes or no', CALLS, ROOM],
		['what is worked out for each reader', CALLS, LATE],
		['a short table', FEW, 41]
	])('is not noted: %s', (_what, table, column) => {
		expect(wantedBy(table, column)).toEqual([])
		expect(makeOrderIndex(store, { table, column })).toBe(false)
	})

	test('is not noted for who does not see the column', () => {
		expect(wantedBy(CALLS, UNSEEN, CORRIE)).toEqual([])
		expect(wantedBy(CALLS, UNSEEN)).toEqual([{ table: CALLS, column: UNSEEN }])
	})

	test('is not made for a table or column that is gone', () => {
		expect(makeOrderIndex(store, { table: 99, column: LENGTH })).toBe(false)
		expect(makeOrderIndex(store, { table: CALLS, column: 99 })).toBe(false)
	})

	test('is made for eight columns of a table at most, beside those it has anyway', () => {
		const made = Array.from({ length: 9 }, (_, i) => makeOrderIndex(store, { table: CALLS, column: 50 + i }))
		// Three were made above.
		expect(made.filter(Boolean)).toHaveLength(5)
	})
})

describe('how values are spread', () => {
	test('is learned, so that an index of four values is passed over for one that has the order', () => {
		// Without, SQLite takes every index for one of many values: it reads a quarter of the table and sorts it.
		expect(planOf(LENGTH, CORRIE).join('\n')).toMatch(/SEARCH r USING INDEX i3_34[^]*TEMP B-TREE/)
		const before = read(CALLS, LENGTH, CORRIE)
		expect(takeStatistics(store)).toBe(true)
		expect(planOf(LENGTH, CORRIE)).toEqual(['SEARCH r USING INDEX i3_31 (c31>?)'])
		expect(read(CALLS, LENGTH, CORRIE)).toEqual(before)
	})

	test('is told for few values and for many', () => {
		const rowsOf = (index: string) =>
			String(store.pluck(`SELECT stat FROM sqlite_stat1 WHERE idx = ?`, index)).split(' ').map(Number)
		expect(rowsOf('i3_34')).toEqual([ROWS, ROWS / 4, 1])
		// Every boat has a name of its own; about 51 have the same length.
		expect(rowsOf('i3_30')).toEqual([ROWS, 1, 1])
		const [, same = 0] = rowsOf('i3_31')
		expect(same).toBeGreaterThan(25)
		expect(same).toBeLessThan(102)
	})

	test('is taken once, and again when there are more indexes or half as many rows more', () => {
		while (takeStatistics(store));
		expect(takeStatistics(store)).toBe(false)
		store.db.exec('CREATE INDEX further ON t3 (c33)')
		expect(takeStatistics(store)).toBe(true)
		expect(takeStatistics(store)).toBe(false)
		store.db.exec(`INSERT INTO t3 (n, made_at, changed_at) VALUES (${ROWS * 2}, 0, 0)`)
		expect(takeStatistics(store)).toBe(true)
		expect(takeStatistics(store)).toBe(false)
	})

	test('short tables are left alone', () => {
		const known = store.db.prepare(`SELECT DISTINCT tbl FROM sqlite_stat1`).pluck().all()
		expect(known).toEqual(['t3'])
	})
})

test('indexes are tended one thing at a time, until there is nothing more', () => {
	store.db.exec('DROP INDEX i3_32')
	const wanted = [{ table: CALLS, column: DAY }]
	store.db.exec(`DELETE FROM meta WHERE key = 'order index 3 ${DAY}'`)
	const grown: string[] = []
	do grown.push(tendIndexes(store, { wanted }))
	while (grown.at(-1) === 'more')
	expect(grown.length).toBeGreaterThan(3)
	expect(grown.at(-1)).toBe('done')
	expect(store.pluck(`SELECT 1 FROM sqlite_schema WHERE name = 'i3_32'`)).toBe(1)
})
