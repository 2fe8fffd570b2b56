/** What holds between rows: values that may stand once within another column, and what becomes of rows that point to one that goes. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { CellInput } from '$lib/core/query/change.ts'
import type { OnRemoval } from '$lib/core/model/table.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { readHistory } from '$lib/server/rows/read-history.ts'
import type { Store } from '$lib/server/store/store.ts'
import { changeColumn, removeColumn } from '$lib/server/structure/change-columns.ts'
import { addColumn } from '$lib/server/structure/tables.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const by = { actor: { person: KEEPER }, now: NOW }
const [HARBOURS, MOORINGS, INSPECTIONS] = [2, 3, 4]
const [BERTH, HARBOUR] = [30, 31]
const [CLERK, CLERKS] = [2, 10]
let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		roles: [{ id: CLERKS, name: 'clerks', includes: [] }],
		lines: [
			{ id: 'h', table: HARBOURS, role: CLERKS, verbs: ['see', 'remove'], where: '', columns: { kind: 'all' } },
			{
				id: 'm',
				table: MOORINGS,
				role: CLERKS,
				verbs: ['see', 'change', 'remove'],
				where: 'berth <> "secret"',
				columns: { kind: 'all' }
			}
		],
		tables: [
			{
				id: HARBOURS,
				name: 'harbours',
				keepers: [KEEPER],
				label: 20,
				columns: [{ id: 20, name: 'name', type: 'text' }]
			},
			{
				id: MOORINGS,
				name: 'moorings',
				keepers: [KEEPER],
				label: BERTH,
				columns: [
					{ id: BERTH, name: 'berth', type: 'text' },
					{ id: HARBOUR, name: 'harbour', type: 'reference', to: HARBOURS }
				]
			},
			{
				id: INSPECTIONS,
				name: 'inspections',
				keepers: [KEEPER],
				label: 40,
				columns: [
					{ id: 40, name: 'note', type: 'text' },
					{ id: 41, name: 'mooring', type: 'reference', to: MOORINGS, onRemoval: 'remove too' }
				]
			}
		]
	})
	store.db
		.prepare(
			`INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES (2, 0, 0, 'Corrie', 'corrie', 'c@varrow.example', 'c@varrow.example')`
		)
		.run()
	store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(CLERK, CLERKS)
})

function add(table: number, cells: Record<number, CellInput>): string {
	const list = Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
	return changeRows(store, [{ kind: 'add', table, cells: list }], { ...by, through: 'grid' })[0]?.row ?? ''
}

function act(kind: 'remove' | 'restore', table: number, row: string, person = KEEPER) {
	const context = { actor: { person }, now: NOW, through: 'grid' as const }
	return store.db.transaction(() => changeRows(store, [{ kind, table, row }], context))()
}

const count = (table: number) => readRows(store, by.actor, { table }, NOW).rows.length

describe('no value twice within another column', () => {
	beforeEach(() => {
		for (const name of ['Ness Hythe', 'Gull Stair']) add(HARBOURS, { 20: name })
		changeColumn(store, { ...by, table: MOORINGS, column: BERTH, words: { unique: true, uniqueWithin: HARBOUR } })
	})

	test('the same value stands again where the other column differs, and only there', () => {
		add(MOORINGS, { [BERTH]: 'A1', [HARBOUR]: { match: 'Ness Hythe' } })
		const other = add(MOORINGS, { [BERTH]: 'A1', [HARBOUR]: { match: 'Gull Stair' } })
		expect(() => add(MOORINGS, { [BERTH]: 'a1', [HARBOUR]: { match: 'Ness Hythe' } })).toThrow('this value already')
		const move = { column: HARBOUR, value: { match: 'Ness Hythe' } }
		const moved = () =>
			changeRows(store, [{ kind: 'change', table: MOORINGS, row: other, cells: [move] }], { ...by, through: 'grid' })
		expect(moved).toThrow('this value already')
	})

	test('where the other column is blank, the rows without it are one group', () => {
		add(MOORINGS, { [BERTH]: 'A1' })
		expect(() => add(MOORINGS, { [BERTH]: 'A1' })).toThrow('this value already')
	})

	test('it cannot be asked for where values stand twice already, and goes with the column it is within', () => {
		const zone = addColumn(store, { ...by, table: MOORINGS, column: { name: 'zone', type: 'text' } })
		changeColumn(store, { ...by, table: MOORINGS, column: BERTH, words: { unique: true, uniqueWithin: zone } })
		add(MOORINGS, { [BERTH]: 'A1', [zone]: 'north' })
		add(MOORINGS, { [BERTH]: 'A1', [zone]: 'south' })
		const everywhere = () => changeColumn(store, { ...by, table: MOORINGS, column: BERTH, words: { unique: true } })
		expect(everywhere).toThrow('more than once')
		removeColumn(store, { ...by, table: MOORINGS, column: zone })
		expect(() => add(MOORINGS, { [BERTH]: 'A1' })).not.toThrow()
	})
})

describe('what becomes of rows that point to one that goes', () => {
	let harbour: string
	let mooring: string
	beforeEach(() => {
		harbour = add(HARBOURS, { 20: 'Ness Hythe' })
		mooring = add(MOORINGS, { [BERTH]: 'A1', [HARBOUR]: { id: harbour } })
		add(INSPECTIONS, { 40: 'fine', 41: { id: mooring } })
		add(INSPECTIONS, { 40: 'worn', 41: { id: mooring } })
	})
	const choose = (onRemoval: OnRemoval) =>
		changeColumn(store, { ...by, table: MOORINGS, column: HARBOUR, words: { onRemoval } })

	test('kept: the removal is refused', () => {
		expect(() => act('remove', HARBOURS, harbour)).toThrow('Rows of moorings still point to this one.')
	})

	test('cleared: the reference becomes blank, with a history of its own', () => {
		choose('clear')
		act('remove', HARBOURS, harbour)
		expect(readRows(store, by.actor, { table: MOORINGS }, NOW).rows[0]?.cells[`c${HARBOUR}`]).toBeNull()
		expect(readHistory(store, { table: MOORINGS, row: mooring, ...by })).toHaveLength(2)
		act('restore', HARBOURS, harbour)
		expect(readRows(store, by.actor, { table: MOORINGS }, NOW).rows[0]?.cells[`c${HARBOUR}`]).toMatchObject({
			id: harbour
		})
	})

	test('cleared, and set to another meanwhile: that one stays', () => {
		choose('clear')
		act('remove', HARBOURS, harbour)
		const other = add(HARBOURS, { 20: 'Gull Stair' })
		const cells = [{ column: HARBOUR, value: { id: other } }]
		changeRows(store, [{ kind: 'change', table: MOORINGS, row: mooring, cells }], { ...by, through: 'grid' })
		act('restore', HARBOURS, harbour)
		expect(readRows(store, by.actor, { table: MOORINGS }, NOW).rows[0]?.cells[`c${HARBOUR}`]).toMatchObject({
			id: other
		})
	})

	test('what comes back with a row needs the right on each as well, or nothing comes back', () => {
		choose('remove too')
		act('remove', HARBOURS, harbour)
		expect(() => act('restore', HARBOURS, harbour, CLERK)).toThrow('You may not add')
		expect([count(HARBOURS), count(MOORINGS), count(INSPECTIONS)]).toEqual([0, 0, 0])
	})

	test('removed too: all that points to it goes, down to the last, and comes back with it', () => {
		choose('remove too')
		act('remove', HARBOURS, harbour)
		expect([count(HARBOURS), count(MOORINGS), count(INSPECTIONS)]).toEqual([0, 0, 0])
		expect(() => act('restore', MOORINGS, mooring)).toThrow('Bring that one back first.')
		act('restore', HARBOURS, harbour)
		expect([count(HARBOURS), count(MOORINGS), count(INSPECTIONS)]).toEqual([1, 1, 2])
		const [row] = readRows(store, by.actor, { table: MOORINGS }, NOW).rows
		expect(row?.cells[`c${HARBOUR}`]).toMatchObject({ id: harbour })
	})

	test('it needs the right on each row; one that is not seen is only another row', () => {
		choose('remove too')
		// The clerk sees no inspections at all.
		expect(() => act('remove', HARBOURS, harbour, CLERK)).toThrow('Other rows still use it.')
		expect([count(HARBOURS), count(MOORINGS), count(INSPECTIONS)]).toEqual([1, 1, 2])
	})

	test('rows that point to one another go together', () => {
		const next = addColumn(store, {
			...by,
			table: MOORINGS,
			column: { name: 'next', type: 'reference', to: MOORINGS, onRemoval: 'remove too' }
		})
		const other = add(MOORINGS, { [BERTH]: 'A2', [next]: { id: mooring } })
		changeRows(
			store,
			[{ kind: 'change', table: MOORINGS, row: mooring, cells: [{ column: next, value: { id: other } }] }],
			{ ...by, through: 'grid' }
		)
		act('remove', MOORINGS, mooring)
		expect(count(MOORINGS)).toBe(0)
		act('restore', MOORINGS, mooring)
		expect(count(MOORINGS)).toBe(2)
	})
})
