import { describe, expect, test } from 'vitest'
import { compareCodePoints } from '$lib/core/text/key.ts'
import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { ANCHOR_EVERY, readAnchors } from '$lib/server/rows/read-anchors.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { RowsRequest, SortBy } from '$lib/server/rows/resolve.ts'
import { createIndex } from '$lib/server/store/schema.ts'
import { getColumn, getTable } from '$lib/core/model/table.ts'
import { EVERYONE } from '$lib/server/rights/system-roles.ts'
import { randomFrom } from '../../demo/random.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const TABLE = 2
const ROWS = 4_345
/** Sees all rows, but the depth only of rows that are open. */
const READER = 7

const store = openScratch({
	now: NOW,
	tables: [
		{
			id: TABLE,
			name: 'soundings',
			keepers: [KEEPER],
			label: 20,
			columns: [
				{ id: 20, name: 'name', type: 'text' },
				{ id: 21, name: 'depth', type: 'decimal', places: 1 },
				{ id: 22, name: 'day', type: 'date' },
				{ id: 23, name: 'open', type: 'yes/no' }
			]
		}
	],
	roles: [{ id: EVERYONE, name: 'Everyone', includes: [] }],
	lines: [
		{ id: 'a', table: TABLE, role: EVERYONE, verbs: ['see'], where: '', columns: { kind: 'except', columns: [21] } },
		{ id: 'b', table: TABLE, role: EVERYONE, verbs: ['see'], where: 'open', columns: { kind: 'only', columns: [21] } }
	]
})
store.db.exec(
	`INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES (${READER}, 0, 0, 'Imke', 'imke', 'i@varrow.example', 'i@varrow.example')`
)
const random = randomFrom(5)
const insert = store.db.prepare(
	`INSERT INTO t${TABLE} (made_at, changed_at, c20, c20k, c21, c22, c23) VALUES (0, 0, @name, lower(@name), @depth, @day, @open)`
)
for (let i = 0; i < ROWS; i++)
	insert.run({
		name: random.pick(['Varrow', 'ness', 'Gull', 'Orrin', null]),
		depth: random.chance(0.4) ? null : random.below(40),
		day: random.chance(0.1) ? null : `2026-0${1 + random.below(9)}-1${random.below(9)}`,
		open: Number(random.chance(0.5))
	})

// By depth the rows are found through an index, for whoever sees all of it: places come by jumps.
createIndex(
	store.db,
	getTable(store.workspace().catalogue, TABLE),
	getColumn(getTable(store.workspace().catalogue, TABLE), 21)
)

function readAll(actor: number, request: Omit<RowsRequest, 'table'>, limit: number): WireRow[] {
	const rows: WireRow[] = []
	let after: string | undefined
	do {
		const page = readRows(store, { person: actor }, { ...request, table: TABLE, limit, after }, NOW)
		rows.push(...page.rows)
		after = page.next ?? undefined
	} while (after !== undefined)
	return rows
}

const ORDERS: [what: string, ...by: SortBy[]][] = [
	['one column', { column: 20, descending: false }],
	['one column, falling', { column: 21, descending: true }],
	['two columns', { column: 20, descending: false }, { column: 21, descending: true }],
	[
		'three columns',
		{ column: 22, descending: true },
		{ column: 20, descending: false },
		{ column: 21, descending: false }
	],
	['a column that is seen in places, then another', { column: 21, descending: false }, { column: 20, descending: true }]
]

describe.each([
	['the keeper', KEEPER],
	['a reader who sees one column in places', READER]
])('%s pages through every row once, in the order asked for', (_who, person) => {
	test.each(ORDERS)('by %s', (_what, first, ...rest) => {
		if (!first) throw new Error('Expected an order')
		const rows = readAll(person, { sort: first, then: rest }, 97)
		expect(new Set(rows.map((row) => row.id)).size).toBe(ROWS)
		// Rows whose first cell is not seen come last and have no order by it.
		const seen = rows.filter((row) => cellKey(first.column) in row.cells)
		for (let i = 1; i < seen.length; i++)
			expect(order(seen[i - 1], seen[i], [first, ...rest]), `rows ${i} and ${i + 1}`).toBeLessThanOrEqual(0)
		expect(rows.slice(0, seen.length)).toEqual(seen)
	})

	test('and every thousandth row is where the anchor says', () => {
		let unseen = 0
		for (const [, first, ...then] of [...ORDERS, ['as they came in'] as const]) {
			const request = { sort: first, then, table: TABLE }
			const all = readAll(person, request, 500)
			const { count, anchors } = readAnchors(store, { person }, request, NOW)
			expect(count).toBe(ROWS)
			expect(anchors).toHaveLength(Math.floor(ROWS / ANCHOR_EVERY))
			for (const anchor of anchors) {
				const [branch, values] = JSON.parse(Buffer.from(anchor, 'base64url').toString()) as [number, unknown[]]
				// What is not seen stands in no anchor either, though rows are numbered beside it.
				if (branch > 0 && first) expect(values[0]).toBeNull()
				if (branch > 1) unseen++
			}
			anchors.forEach((after, i) => {
				for (const skip of [0, 1, 500, 999]) {
					const at = (i + 1) * ANCHOR_EVERY + skip
					const page = readRows(store, { person }, { ...request, after, skip, limit: 3 }, NOW)
					expect(page.rows.map((row) => row.id)).toEqual(all.slice(at, at + 3).map((row) => row.id))
				}
			})
		}
		expect(unseen > 0).toBe(person === READER)
	})
})

test('filters are judged on what the reader sees', () => {
	const deep = { column: 21, is: 'at least', text: '2.5' } as const
	const rows = readAll(READER, { filters: [deep] }, 1000)
	expect(rows.length).toBeGreaterThan(100)
	expect(rows.every((row) => Number(row.cells['c21']) >= 2.5 && row.cells['c23'] === true)).toBe(true)
	const blank = readAll(READER, { filters: [{ column: 21, is: 'blank', text: '' }] }, 1000)
	// A cell that is not seen is as blank to its reader.
	expect(blank.filter((row) => row.cells['c23'] === false).length).toBeGreaterThan(100)
	const any = readAll(READER, { filters: [{ column: 0, is: 'contains', text: 'ARRO' }] }, 1000)
	expect(any.every((row) => row.cells['c20'] === 'Varrow')).toBe(true)
})

/** An order of our own over what was sent: blanks last, text without regard to case. */
function order(a: WireRow | undefined, b: WireRow | undefined, keys: readonly SortBy[]): number {
	for (const { column, descending } of keys) {
		const [x, y] = [a?.cells[cellKey(column)] ?? null, b?.cells[cellKey(column)] ?? null]
		if (x === y) continue
		if (x === null || y === null) return x === null ? 1 : -1
		const way =
			typeof x === 'string' ? compareCodePoints(x.toLowerCase(), String(y).toLowerCase()) : Number(x) - Number(y)
		if (way !== 0) return descending ? -way : way
	}
	return 0
}
