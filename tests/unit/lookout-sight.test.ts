/** Looking as somebody else at a table that the looker does not keep: what both may see, whatever it is ordered by. */
import { beforeEach, expect, test } from 'vitest'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { readAnchors } from '$lib/server/rows/read-anchors.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { SortBy } from '$lib/server/rows/resolve.ts'
import type { Store } from '$lib/server/store/store.ts'
import { seeLine } from '../support/see-line.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [MOORINGS, CODE, HARBOUR, ARREARS, TWICE] = [2, 20, 21, 22, 23]
const [DIVER, BUILDER, IMKE, JORY] = [10, 11, 2, 3]

let store: Store

beforeEach(() => {
	const see = seeLine(MOORINGS)
	store = openScratch({
		now: NOW,
		roles: [DIVER, BUILDER].map((id) => ({ id, name: `role ${id}`, includes: [] })),
		lines: [
			// Imke sees all of the rows of Ness; Jory every row, but arrears at Varrow alone.
			see('d', DIVER, 'harbour = "Ness"'),
			see('b', BUILDER, '', [ARREARS]),
			see('c', BUILDER, 'harbour = "Varrow"')
		],
		tables: [
			{
				id: MOORINGS,
				name: 'moorings',
				keepers: [KEEPER],
				label: CODE,
				columns: [
					{ id: CODE, name: 'code', type: 'code' },
					{ id: HARBOUR, name: 'harbour', type: 'text' },
					{ id: ARREARS, name: 'arrears', type: 'money' },
					{ id: TWICE, name: 'twice', type: 'computed', formula: 'arrears * 2' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke'), (${JORY}, 0, 0, 'Jory', 'jory');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${DIVER}), (${JORY}, ${BUILDER});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c21k, c22, c23) VALUES
			(1, 0, 0, 'NH-1', 'nh-1', 'Ness', 'ness', 500, 1000), (2, 0, 0, 'VQ-1', 'vq-1', 'Varrow', 'varrow', 900, 1800),
			(3, 0, 0, 'NH-2', 'nh-2', 'Ness', 'ness', NULL, NULL), (4, 0, 0, 'VQ-2', 'vq-2', 'Varrow', 'varrow', NULL, NULL)`)
})

const actor = { person: IMKE, lookedAtBy: JORY }
const ORDERS: readonly (SortBy | undefined)[] = [
	undefined,
	...[CODE, HARBOUR, ARREARS, TWICE].flatMap((column) => [
		{ column, descending: false },
		{ column, descending: true }
	])
]

test.each(ORDERS)('ordered by %o, only rows that both see come, and none of their arrears', (sort) => {
	const request = { table: MOORINGS, ...(sort ? { sort } : {}) }
	const page = readRows(store, actor, request, NOW)
	expect(page.rows.map((row) => row.cells[`c${CODE}`]).sort()).toEqual(['NH-1', 'NH-2'])
	expect(page.rows.some((row) => `c${ARREARS}` in row.cells || `c${TWICE}` in row.cells)).toBe(false)
	expect(readAnchors(store, actor, request, NOW).count).toBe(2)
})

test('each of them alone sees more than both', () => {
	const codes = (person: number) =>
		readRows(store, { person }, { table: MOORINGS, sort: { column: ARREARS, descending: true } }, NOW).rows.length
	expect([codes(IMKE), codes(JORY)]).toEqual([2, 4])
})
