import { beforeEach, describe, expect, test } from 'vitest'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { dropUnregistered } from '$lib/server/sources/import-table.ts'
import type { Store } from '$lib/server/store/store.ts'
import { changeColumn } from '$lib/server/structure/change-columns.ts'
import { oneListApp } from '../support/one-list-app.ts'
import { addColumn, addTable } from '$lib/server/structure/tables.ts'
import { previewTableRemoval, removedTables, removeTable, returnTable } from '$lib/server/structure/take-out-table.ts'

const NOW = Date.parse('2026-11-24T12:00:00Z')
const DAY = 86_400_000
const [HARBOURS, MOORINGS] = [2, 3]
const by = { actor: { person: KEEPER }, now: NOW }

let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		tables: [
			{
				id: HARBOURS,
				name: 'Harbours',
				keepers: [KEEPER],
				label: 20,
				columns: [{ id: 20, name: 'Name', type: 'text' }]
			},
			{
				id: MOORINGS,
				name: 'Moorings',
				keepers: [KEEPER],
				label: 30,
				columns: [
					{ id: 30, name: 'Code', type: 'code' },
					{ id: 31, name: 'Depth', type: 'decimal', places: 1 },
					{ id: 32, name: 'Harbour', type: 'reference', to: HARBOURS },
					{ id: 33, name: 'Twice', type: 'computed', formula: 'Depth * 2' }
				]
			}
		],
		roles: [{ id: 1, name: 'Everyone', includes: [] }],
		lines: [
			{
				id: 'a',
				table: MOORINGS,
				role: 1,
				verbs: ['see'],
				where: 'Harbour.Name = "Ness Hythe"',
				columns: { kind: 'all' }
			}
		]
	})
	store.db.prepare(`INSERT INTO role_held (person, role) VALUES (?, 2)`).run(KEEPER)
	store.db.prepare(`INSERT INTO meta (key, value) VALUES ('next table', '100'), ('next column', '100')`).run()
	add(HARBOURS, 20, 'Ness Hythe')
	add(MOORINGS, 30, 'NH-001')
	add(MOORINGS, 30, 'NH-002')
})

function add(table: number, column: number, value: string): void {
	changeRows(store, [{ kind: 'add', table, cells: [{ column, value }] }], { ...by, through: 'grid' })
}

const codes = () =>
	readRows(store, by.actor, { table: MOORINGS, columns: [30, 33] }, NOW).rows.map((row) => row.cells['c30'])

describe('a table that is taken out', () => {
	test('is gone from every read, and comes back with its rows and lines', () => {
		removeTable(store, { table: MOORINGS, ...by })
		expect(codes()).toEqual([])
		expect(store.workspace().document.lines).toEqual([])
		expect(store.db.prepare(`SELECT name FROM sqlite_schema WHERE name = 'table Moorings'`).get()).toBeUndefined()
		expect(removedTables(store, by.actor, NOW).map(({ table }) => table.name)).toEqual(['Moorings'])
		expect(returnTable(store, { table: MOORINGS, ...by })).toEqual({ lines: true })
		expect(codes()).toEqual(['NH-001', 'NH-002'])
		expect(store.workspace().document.lines.map((line) => line.id)).toEqual(['a'])
		expect(removedTables(store, by.actor, NOW)).toEqual([])
	})

	test('comes back without its lines where other tables have other names by then', () => {
		removeTable(store, { table: MOORINGS, ...by })
		changeColumn(store, { table: HARBOURS, column: 20, words: { name: 'Town' }, ...by })
		addColumn(store, { table: HARBOURS, column: { name: 'Name', type: 'text' }, ...by })
		expect(returnTable(store, { table: MOORINGS, ...by })).toEqual({ lines: false })
		expect(store.workspace().document.lines).toEqual([])
	})

	test('makes room for another of its name, and then cannot come back under it', () => {
		removeTable(store, { table: MOORINGS, ...by })
		addTable(store, { name: 'Moorings', columns: [{ name: 'Code', type: 'code' }], ...by })
		expect(() => returnTable(store, { table: MOORINGS, ...by })).toThrow(/already/)
	})

	test('keeps its rows through a restart, and for thirty days', () => {
		removeTable(store, { table: MOORINGS, ...by })
		dropUnregistered(store, { now: NOW + 29 * DAY })
		returnTable(store, { table: MOORINGS, ...by })
		expect(codes()).toHaveLength(2)
		removeTable(store, { table: MOORINGS, ...by })
		dropUnregistered(store, { now: NOW + 31 * DAY })
		expect(store.db.prepare(`SELECT 1 FROM sqlite_schema WHERE name = 't${MOORINGS}'`).get()).toBeUndefined()
		expect(removedTables(store, by.actor, NOW + 31 * DAY)).toEqual([])
	})
})

describe('taking a table out is refused', () => {
	test('while another points to it', () => {
		expect(previewTableRemoval(store, { table: HARBOURS, ...by })).toMatchObject({
			rows: 1,
			uses: ['Moorings, Harbour']
		})
		expect(() => removeTable(store, { table: HARBOURS, ...by })).toThrow(/Moorings, Harbour/)
	})

	test('while a formula of another counts its rows', () => {
		addColumn(store, {
			table: HARBOURS,
			column: { name: 'Berths', type: 'computed', formula: 'COUNT(moorings)' },
			...by
		})
		expect(previewTableRemoval(store, { table: MOORINGS, ...by }).uses).toEqual(['Harbours, Berths'])
	})

	test('while a draft shows it', () => {
		addAppFrom(store, { document: oneListApp('Care', MOORINGS, 30), ...by })
		expect(() => removeTable(store, { table: MOORINGS, ...by })).toThrow(/Care: Screen Today/)
	})

	test('for the people, and for who does not keep it', () => {
		expect(previewTableRemoval(store, { table: 1, ...by }).uses[0]).toBe('The people of the workspace')
		expect(() => removeTable(store, { table: MOORINGS, actor: { person: 2 }, now: NOW })).toThrow(
			/kept by somebody else/
		)
		removeTable(store, { table: MOORINGS, ...by })
		store.db.exec(`INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke Dahl', 'imke dahl')`)
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (2, 2)`)
		expect(() => returnTable(store, { table: MOORINGS, actor: { person: 2 }, now: NOW })).toThrow(/no longer/)
	})
})
