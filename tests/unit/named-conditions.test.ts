import { beforeEach, describe, expect, test } from 'vitest'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { readPeople } from '$lib/server/people/people-sheet.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import type { Store } from '$lib/server/store/store.ts'
import { listTables, tryCondition } from '$lib/server/review/bench.ts'
import { readAccess } from '$lib/server/review/read-access.ts'
import { READS } from '$lib/server/threads/reads.ts'
import { changeColumn, removeColumn } from '$lib/server/structure/change-columns.ts'
import { addColumn, saveLines, setFormula } from '$lib/server/structure/tables.ts'

const NOW = Date.parse('2026-11-24T12:00:00Z')
const MOORINGS = 2
const [CODE, DEPTH, DIVER] = [10, 11, 12]
const ALL = 5
const by = { actor: { person: KEEPER }, now: NOW }

let store: Store
let deep: number
let imke: number

beforeEach(() => {
	store = openScratch({
		now: NOW,
		tables: [
			{
				id: MOORINGS,
				name: 'Moorings',
				keepers: [KEEPER],
				label: CODE,
				columns: [
					{ id: CODE, name: 'Code', type: 'code' },
					{ id: DEPTH, name: 'Depth', type: 'decimal', places: 1 },
					{ id: DIVER, name: 'Diver', type: 'reference', to: 1 }
				]
			}
		],
		roles: [
			{ id: 1, name: 'Everyone', includes: [] },
			{ id: ALL, name: 'Divers', includes: [] }
		]
	})
	store.db.prepare(`INSERT INTO role_held (person, role) VALUES (?, 2)`).run(KEEPER)
	store.db.exec(`INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke Dahl', 'imke dahl')`)
	imke = 2
	const rows: [string, number, number | null][] = [
		['NH-001', 4, imke],
		['NH-002', 12, null],
		['NH-003', 31.5, imke]
	]
	for (const [code, depth, diver] of rows) {
		const cells = [
			{ column: CODE, value: code },
			{ column: DEPTH, value: depth },
			{ column: DIVER, value: diver === null ? null : { id: store.ids.toId(1, diver) } }
		]
		changeRows(store, [{ kind: 'add', table: MOORINGS, cells }], { ...by, through: 'grid' })
	}
	deep = addCondition('deep', 'Depth > 10')
})

function addCondition(name: string, formula: string): number {
	return addColumn(store, {
		table: MOORINGS,
		column: { name, type: 'computed', formula, condition: true },
		...by
	})
}

/** Lets divers see the rows that fit, in all columns or only some. */
function letSee(where: string, only?: number[]): void {
	const columns = only ? { kind: 'only' as const, columns: only } : { kind: 'all' as const }
	const line = { id: 'a', table: MOORINGS, role: ALL, verbs: ['see' as const], where, columns }
	saveLines(store, { table: MOORINGS, lines: [line], version: store.workspace().version, ...by })
}

const codes = (person: number, where: number) =>
	readRows(
		store,
		{ person },
		{ table: MOORINGS, columns: [CODE], filters: [{ column: where, is: 'equal', text: 'yes' }] },
		NOW
	).rows.map((row) => row.cells[`c${CODE}`])

describe('a named condition', () => {
	test('chooses rows by its name, in formulas and as a filter', () => {
		const trial = tryCondition(store, { ...by, table: MOORINGS, text: 'deep and Depth < 20', people: [], me: true })
		expect(trial).toMatchObject({ ok: true, rows: 1, of: 3 })
		expect(codes(KEEPER, deep)).toEqual(['NH-002', 'NH-003'])
	})

	test('may compare with who is looking', () => {
		const mine = addCondition('mine', 'Diver = me')
		letSee('')
		store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(imke, ALL)
		expect(codes(imke, mine)).toEqual(['NH-001', 'NH-003'])
		expect(codes(KEEPER, mine)).toEqual([])
	})

	test('stands in a line of access, which follows it when it changes', () => {
		store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(imke, ALL)
		letSee('deep', [CODE])
		const seen = () => readAccess(store, { table: MOORINGS, ...by }).people.find((each) => each.person === imke)?.seen
		expect(seen()).toBe(2)
		setFormula(store, { table: MOORINGS, column: deep, formula: 'Depth > 30', ...by })
		expect(seen()).toBe(1)
		changeColumn(store, { table: MOORINGS, column: deep, words: { name: 'very deep' }, ...by })
		expect(store.workspace().document.lines[0]?.where).toBe('very deep')
		expect(() => removeColumn(store, { table: MOORINGS, column: deep, ...by })).toThrow(/A line of access to Moorings/)
	})

	test('tells nobody about a column that they do not see', () => {
		store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(imke, ALL)
		letSee('', [CODE, deep])
		expect(codes(imke, deep)).toEqual([])
	})

	test('must come to yes or no', () => {
		expect(() => addCondition('depth again', 'Depth * 2')).toThrow(/must come to yes or no/)
	})

	test('is no column of an export, but known to its keeper', () => {
		const head = READS.tableHead(store, { table: MOORINGS, ...by })
		expect(head?.columns.map((column) => column.name)).toEqual(['Code', 'Depth', 'Diver'])
		const table = listTables(store, by).find((each) => each.id === MOORINGS)
		expect(table?.columns.find((column) => column.id === deep)).toMatchObject({
			condition: true,
			formula: 'Depth > 10'
		})
	})
})

test('is no column that is kept back from somebody, nor one of a person’s sheet', () => {
	store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(imke, ALL)
	letSee('', [CODE])
	const found = readAccess(store, { table: MOORINGS, ...by }).people.find((each) => each.person === imke)
	expect(found?.withheld).toEqual(['Depth', 'Diver'])
	const condition = { name: 'has no mail', type: 'computed' as const, formula: 'ISBLANK(email)', condition: true }
	addColumn(store, { table: 1, column: condition, ...by })
	expect(readPeople(store, by).columns.map((column) => column.name)).not.toContain('has no mail')
})
