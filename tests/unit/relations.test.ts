/** Columns whose values name rows of another table are found, from both ends, and only among what the builder sees. */
import { beforeEach, expect, test } from 'vitest'
import { KEEPER, openScratch } from '$lib/server/check-values/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store.ts'
import { findRelations } from '$lib/server/workspace/find-relations.ts'
import { toReference } from '$lib/server/workspace/tables.ts'

const by = { actor: { person: KEEPER }, now: Date.parse('2026-11-23T12:00:00Z') }
const [ITEMS, ISSUES, SECRET] = [2, 3, 4]
let store: Store

beforeEach(() => {
	store = openScratch({
		now: by.now,
		tables: [
			{
				id: ITEMS,
				name: 'items',
				keepers: [KEEPER],
				label: 10,
				columns: [
					{ id: 10, name: 'number', type: 'whole number' },
					{ id: 11, name: 'harbour', type: 'choice', choices: ['Ness Hythe', 'Gull Stair'] }
				]
			},
			{
				id: ISSUES,
				name: 'issues',
				keepers: [KEEPER],
				label: 20,
				columns: [
					{ id: 20, name: 'slip', type: 'code' },
					{ id: 21, name: 'item', type: 'whole number' },
					{ id: 22, name: 'count', type: 'whole number' },
					{ id: 23, name: 'key', type: 'text' }
				]
			},
			{ id: SECRET, name: 'keys', keepers: [99], label: 30, columns: [{ id: 30, name: 'key', type: 'text' }] }
		]
	})
	for (let i = 1; i <= 12; i++) add(ITEMS, { 10: i * 100, 11: i % 2 ? 'Ness Hythe' : 'Gull Stair' })
	for (let i = 1; i <= 12; i++) add(ISSUES, { 20: `S-${i}`, 21: ((i % 11) + 1) * 100, 22: i, 23: `key ${i}` })
	add(ISSUES, { 20: 'S-99', 21: 7, 22: 1 })
	for (let i = 1; i <= 12; i++)
		store.db.prepare(`INSERT INTO t4 (made_at, changed_at, c30, c30k) VALUES (0, 0, ?, ?)`).run(`key ${i}`, `key ${i}`)
})

function add(table: number, cells: Record<number, string | number>): void {
	const list = Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
	changeRows(store, [{ kind: 'add', table, cells: list }], { ...by, through: 'test' })
}

test('numbers that name rows are found from either end, with what would be lost', () => {
	const item = { table: ISSUES, tableName: 'issues', column: 21, columnName: 'item', to: ITEMS, toName: 'items' }
	expect(findRelations(store, { ...by, table: ISSUES })).toEqual([{ ...item, found: 11, lost: 1 }])
	expect(findRelations(store, { ...by, table: ITEMS })).toEqual([{ ...item, found: 11, lost: 1 }])
})

test('a table that the builder does not see is no relation, however well the values fit', () => {
	expect(findRelations(store, { ...by, table: ISSUES }).map((each) => each.to)).not.toContain(SECRET)
})

test('made a reference, the numbers point to their rows, and nothing is offered twice', () => {
	const column = toReference(store, { ...by, table: ISSUES, column: 21, to: ITEMS, fixes: [] })
	const rows = readRows(store, by.actor, { table: ISSUES, columns: [column] }, by.now).rows
	expect(rows[0]?.cells[`c${column}`]).toMatchObject({ label: '200' })
	expect(rows.at(-1)?.cells[`c${column}`]).toBeNull()
	expect(findRelations(store, { ...by, table: ISSUES })).toEqual([])
})
