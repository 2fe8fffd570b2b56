/** Columns whose values name rows of another table are found, from both ends, and only among what the builder sees. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { TableEntry } from '$lib/core/workspace/document.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'
import { findRelations } from '$lib/server/structure/find-relations.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'
import { repairLabels } from '$lib/server/structure/known-by.ts'
import { previewReference, setLabel, toReference } from '$lib/server/structure/tables.ts'

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
	changeRows(store, [{ kind: 'add', table, cells: list }], { ...by, through: 'grid' })
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
	// A number that rows go by keeps its digits together.
	expect(rows[9]?.cells[`c${column}`]).toMatchObject({ label: '1100' })
	expect(rows.at(-1)?.cells[`c${column}`]).toBeNull()
	expect(findRelations(store, { ...by, table: ISSUES })).toEqual([])
})

describe('the column that rows are known by becomes a reference', () => {
	const known = (table: number) => {
		const entry = store.workspace().document.tables.find((each) => each.id === table)
		return entry?.columns.find(({ id }) => id === entry.label)
	}

	function addEntry(entry: Omit<TableEntry, 'keepers'>): void {
		const { document } = store.workspace()
		const tables = [...document.tables, { ...entry, keepers: [KEEPER] }]
		saveWorkspace(store, { ...document, tables }, { now: by.now, by: KEEPER })
	}

	test('rows are known by another that is typed in, and it is said before', () => {
		setLabel(store, { ...by, table: ISSUES, column: 21 })
		const asked = { ...by, table: ISSUES, column: 21, to: ITEMS }
		expect(previewReference(store, asked).knownBy).toBe('slip')
		toReference(store, { ...asked, fixes: [] })
		expect(known(ISSUES)?.name).toBe('slip')
		expect(findRelations(store, { ...by, table: ITEMS })).toEqual([])
	})

	test('of nothing but references and counts, rows get numbers of their own, new ones too', () => {
		const [lent, column] = [9, 40]
		// How many were lent is no name for the row.
		const count = { id: 41, name: 'count', type: 'whole number' as const }
		addEntry({
			id: lent,
			name: 'lent',
			label: column,
			columns: [{ id: column, name: 'item', type: 'whole number' }, count]
		})
		for (const item of [300, 100]) add(lent, { [column]: item })
		const asked = { ...by, table: lent, column, to: ITEMS }
		expect(previewReference(store, asked).knownBy).toBe('a number of their own')
		const made = toReference(store, { ...asked, fixes: [] })
		const label = known(lent)?.id ?? 0
		changeRows(store, [{ kind: 'add', table: lent, cells: [] }], { ...by, through: 'grid' })
		const { rows } = readRows(store, by.actor, { table: lent, columns: [label, made] }, by.now)
		expect(rows.map(({ cells }) => cells[`c${label}`])).toEqual(['0001', '0002', '0003'])
		expect(rows[0]?.cells[`c${made}`]).toMatchObject({ label: '300' })
	})

	test('what was asked of its values is asked of the references', () => {
		const unique = { id: 40, name: 'item', type: 'whole number' as const, unique: true, required: true, about: 'Which' }
		addEntry({ id: 9, name: 'shelf', label: 40, columns: [unique, { id: 41, name: 'bay', type: 'text' }] })
		const made = toReference(store, { ...by, table: 9, column: 40, to: ITEMS, fixes: [] })
		const columns = store.workspace().document.tables.find(({ id }) => id === 9)?.columns
		expect(columns?.[0]).toEqual({ ...unique, id: made, type: 'reference', to: ITEMS })
	})

	test('a document in which that column was lost is mended at the next start', () => {
		const { document } = store.workspace()
		const broken = {
			...document,
			tables: document.tables.map((each) => (each.id === ISSUES ? { ...each, label: 99 } : each))
		}
		const add = `INSERT INTO document (kind, version, body, made_at, made_by) VALUES ('workspace', 1000, ?, 0, NULL)`
		store.db.prepare(add).run(JSON.stringify(broken))
		store.touched.add('access')
		repairLabels(store, by)
		expect(known(ISSUES)?.name).toBe('slip')
		expect(() => findRelations(store, { ...by, table: ITEMS })).not.toThrow()
	})
})
