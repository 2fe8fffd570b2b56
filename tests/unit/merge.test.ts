/** A file that goes into a table which is there: compared first, then put in through the door, all of it or none. */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeEach, describe, expect, test } from 'vitest'
import { AppError } from '$lib/core/app-error.ts'
import { importPlanSchema, type ImportPlan, type MergeInto } from '$lib/core/exchange/plan.ts'
import { TYPED } from '$lib/core/table/kinds/kind.ts'
import { KEEPER, openScratch } from '$lib/server/check-values/scratch-store.ts'
import { BUILDER } from '$lib/server/people/system-roles.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { readHistory } from '$lib/server/rows/read-history.ts'
import { applyMerge } from '$lib/server/sources/apply-merge.ts'
import { bringIn, type Batch } from '$lib/server/sources/bring-in.ts'
import { writeBatch } from '$lib/server/sources/import-table.ts'
import { findUndoable, undoMerge } from '$lib/server/sources/undo-merge.ts'
import { beginMerge, compareMerge, type Staging } from '$lib/server/sources/stage-merge.ts'
import type { Store } from '$lib/server/store.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const actor = { person: KEEPER }
const [HARBOURS, MOORINGS] = [2, 3]
const [CODE, HARBOUR, DEPTH, STATE, SEEN] = [30, 31, 32, 33, 34]
const folder = mkdtempSync(join(tmpdir(), 'tin-shed-merge-'))
let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
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
				label: CODE,
				columns: [
					{ id: CODE, name: 'code', type: 'code', required: true },
					{ id: HARBOUR, name: 'harbour', type: 'reference', to: HARBOURS },
					{ id: DEPTH, name: 'depth', type: 'decimal', places: 1 },
					{ id: STATE, name: 'state', type: 'choice', choices: ['Good', 'Watch'] },
					{ id: SEEN, name: 'seen', type: 'date' }
				],
				checks: [{ formula: 'depth < 50', message: 'Nothing here is deeper than 50 m.' }]
			}
		]
	})
	store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(KEEPER, BUILDER)
	for (const name of ['Ness Hythe', 'Varrow Quay']) add(HARBOURS, { 20: name })
	add(MOORINGS, {
		[CODE]: 'NH-001',
		[HARBOUR]: { match: 'Ness Hythe' },
		[DEPTH]: 4.2,
		[STATE]: 'Good',
		[SEEN]: '2026-01-05'
	})
	add(MOORINGS, { [CODE]: 'NH-002', [HARBOUR]: { match: 'Ness Hythe' }, [DEPTH]: 6, [STATE]: 'Watch' })
	add(MOORINGS, { [CODE]: 'VQ-001', [HARBOUR]: { match: 'Varrow Quay' }, [DEPTH]: 3 })
})

type Cells = Record<number, string | number | null | { match: string }>

function add(table: number, cells: Cells): void {
	const list = Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
	changeRows(store, [{ kind: 'add', table, cells: list }], { actor, now: NOW, through: 'test' })
}

function shown(): Record<string, unknown> {
	const { rows } = readRows(store, actor, { table: MOORINGS }, NOW)
	const cell = (value: unknown) =>
		value !== null && typeof value === 'object' && 'label' in value ? value.label : (value ?? null)
	return Object.fromEntries(
		rows.map(({ cells }) => [
			String(cells[`c${CODE}`]),
			[HARBOUR, DEPTH, STATE, SEEN].map((column) => cell(cells[`c${column}`]))
		])
	)
}

const FILE = `code,harbour,depth,state,seen
nh-001,ness hythe,4.2,Good,2026-01-05
NH-002,Varrow Quay,6.5,Sunk,
GS-001,Gull Stair,2,Good,2026-02-01
GS-002,Ness Hythe,1.5,Good,2026-02-02
,Ness Hythe,1,,
GS-003,,1,,
GS-003,,2,,
`

async function stage(how: MergeInto['how'], text = FILE): Promise<Staging> {
	const path = join(folder, 'moorings.csv')
	writeFileSync(path, text)
	const writing = TYPED
	const targets = [CODE, HARBOUR, DEPTH, STATE, SEEN]
	const types = ['code', 'text', 'decimal', 'choice', 'date'] as const
	const plan: ImportPlan = importPlanSchema.parse({
		sheet: '',
		headingRow: 0,
		firstRow: 1,
		tableName: 'moorings',
		label: 0,
		columns: targets.map((to, from) => ({
			from,
			name: `column ${from}`,
			type: types[from],
			include: true,
			to,
			writing: { ...writing, dates: 'year first' },
			fixes: []
		})),
		into: { table: MOORINGS, how, key: CODE }
	})
	const begun = beginMerge(store, { plan, actor })
	const args = { path, name: 'moorings.csv', plan, begun, now: NOW, person: KEEPER }
	await bringIn(args, async (batch) => writeBatch(store, batch), {
		onProgress: () => undefined,
		isStopped: () => false
	})
	return { begun, plan, actor, now: NOW }
}

function apply(staging: Staging, partly = false) {
	const expected = compareMerge(store, staging)
	return store.db.transaction(() => applyMerge(store, { ...staging, file: 'moorings.csv', expected, partly }))()
}

test('a comparison tells what is new, changed, the same, missing and left out, before anything is in', async () => {
	const before = shown()
	const comparison = compareMerge(store, await stage('replace'))
	expect(comparison).toMatchObject({ rows: 7, added: 2, changed: 1, same: 1, missing: 1, repeated: 2, keyless: 1 })
	expect(comparison.unfound).toEqual([{ column: 'harbour', text: 'Gull Stair', rows: 1 }])
	expect(comparison.samples).toEqual({
		// "Sunk" is no choice of the table, so the cell keeps what it holds; blank in the file is blank.
		changed: [
			{
				label: 'NH-002',
				cells: [
					{ column: 'harbour', from: 'Ness Hythe', to: 'Varrow Quay' },
					{ column: 'depth', from: '6.0', to: '6.5' }
				]
			}
		],
		added: ['GS-001', 'GS-002'],
		missing: ['VQ-001'],
		repeated: ['GS-003', 'GS-003']
	})
	expect(shown()).toEqual(before)
})

test('an update changes by key, adds the rest, and leaves alone what the file does not have', async () => {
	expect(apply(await stage('update'))).toEqual({ added: 2, changed: 1, removed: 0, misfits: [] })
	expect(shown()).toEqual({
		'NH-001': ['Ness Hythe', 4.2, 'Good', '2026-01-05'],
		'NH-002': ['Varrow Quay', 6.5, 'Watch', null],
		'VQ-001': ['Varrow Quay', 3, null, null],
		'GS-001': [null, 2, 'Good', '2026-02-01'],
		'GS-002': ['Ness Hythe', 1.5, 'Good', '2026-02-02']
	})
	const changed = readRows(store, actor, { table: MOORINGS, labelIs: 'NH-002' }, NOW).rows[0]?.id ?? ''
	const history = readHistory(store, { table: MOORINGS, row: changed, actor, now: NOW })
	expect(history.map((entry) => entry.through)).toContain('file moorings.csv')
})

test('a replacement takes out what the file does not have; the rows that stay keep their ids', async () => {
	const idOf = () => readRows(store, actor, { table: MOORINGS, labelIs: 'NH-002' }, NOW).rows[0]?.id
	const before = idOf()
	expect(apply(await stage('replace'))).toEqual({ added: 2, changed: 1, removed: 1, misfits: [] })
	expect(Object.keys(shown())).toEqual(['NH-001', 'NH-002', 'GS-001', 'GS-002'])
	expect(idOf()).toBe(before)
})

test('the same file a second time changes nothing', async () => {
	apply(await stage('update'))
	expect(compareMerge(store, await stage('update'))).toMatchObject({ added: 0, changed: 0, same: 4 })
})

test('rows that do not fit are named, and none goes in unless the rest is asked for', async () => {
	const deep = `code,harbour,depth,state,seen\nNH-001,Ness Hythe,60,Good,2026-01-05\nGS-009,Ness Hythe,2,Good,\n`
	const before = shown()
	const staging = await stage('update', deep)
	const refused = (() => {
		try {
			apply(staging)
		} catch (error) {
			return error
		}
	})()
	expect(refused).toBeInstanceOf(AppError)
	expect((refused as AppError).details['misfits']).toEqual([
		{ label: 'NH-001', message: 'Nothing here is deeper than 50 m.' }
	])
	expect(shown()).toEqual(before)
	expect(apply(staging, true)).toMatchObject({ added: 1, changed: 0, misfits: [{ label: 'NH-001' }] })
})

test('what was compared is not applied to a table that turned meanwhile', async () => {
	const staging = await stage('update')
	const expected = compareMerge(store, staging)
	add(MOORINGS, { [CODE]: 'GS-001' })
	const late = () => applyMerge(store, { ...staging, file: 'moorings.csv', expected, partly: false })
	expect(late).toThrow('changed meanwhile')
})

test('only who keeps the table may bring a file into it, and only into columns of it that are typed in', () => {
	const plan = (to: number): ImportPlan => ({
		sheet: '',
		headingRow: 0,
		firstRow: 1,
		tableName: 'x',
		label: 0,
		columns: [{ from: 0, name: 'code', type: 'code', include: true, to, writing: TYPED, fixes: [] }],
		into: { table: MOORINGS, how: 'update', key: to }
	})
	expect(() => beginMerge(store, { plan: plan(CODE), actor: { person: 99 } })).toThrow()
	expect(() => beginMerge(store, { plan: plan(HARBOUR), actor })).toThrow('column of their own')
})

test('the list of people is brought in again by address, like any shared table', async () => {
	const path = join(folder, 'people.csv')
	// The keeper's own name is another, which is theirs to change; another row is found by its address; a third is new.
	writeFileSync(
		path,
		'name,address\nThe Keeper,keeper@varrow.example\nImke Dahl-Orlo,IMKE@varrow.example\nHedda Lisle,hedda@brig.example\n'
	)
	add(1, { 1: 'Imke Dahl', 2: 'imke@varrow.example' })
	const column = (from: number, to: number, type: 'text' | 'email') => ({
		...{ from, to, type, name: `column ${from}`, include: true, writing: TYPED, fixes: [] }
	})
	const plan: ImportPlan = importPlanSchema.parse({
		...{ sheet: '', headingRow: 0, firstRow: 1, tableName: 'people', label: 0 },
		columns: [column(0, 1, 'text'), column(1, 2, 'email')],
		into: { table: 1, how: 'update', key: 2 }
	})
	const begun = beginMerge(store, { plan, actor })
	const watch = { onProgress: () => undefined, isStopped: () => false }
	const write = async (batch: Batch) => writeBatch(store, batch)
	await bringIn({ path, name: 'people.csv', plan, begun, now: NOW, person: KEEPER }, write, watch)
	expect(apply({ begun, plan, actor, now: NOW })).toEqual({ added: 1, changed: 2, removed: 0, misfits: [] })
	const names = readRows(store, actor, { table: 1 }, NOW).rows.map(({ cells }) => [cells['c1'], cells['c2']])
	expect(names).toEqual([
		['The Keeper', 'keeper@varrow.example'],
		['Imke Dahl-Orlo', 'imke@varrow.example'],
		['Hedda Lisle', 'hedda@brig.example']
	])
})

describe('a bringing-in is undone as a whole', () => {
	const undo = (at = NOW) => store.db.transaction(() => undoMerge(store, { table: MOORINGS, actor, now: at }))()
	const rowOf = (code: string) => readRows(store, actor, { table: MOORINGS, labelIs: code }, NOW).rows[0]?.id ?? ''
	const change = (code: string, column: number, value: number | string) =>
		changeRows(store, [{ kind: 'change', table: MOORINGS, row: rowOf(code), cells: [{ column, value }] }], {
			actor,
			now: NOW,
			through: 'test'
		})

	test.each(['add', 'update', 'replace'] as const)('how: %s', async (how) => {
		const text = how === 'add' ? 'code,harbour,depth,state,seen\nGS-001,Ness Hythe,2,,\n' : FILE
		const before = shown()
		const ids = Object.keys(before).map(rowOf)
		const { added, changed, removed } = apply(await stage(how, text))
		expect(shown()).not.toEqual(before)
		expect(undo()).toEqual({ undone: added + changed + removed, kept: [], keptCount: 0 })
		expect(shown()).toEqual(before)
		expect(Object.keys(before).map(rowOf)).toEqual(ids)
		expect(() => undo()).toThrow('There is nothing that can be undone')
	})

	test('what somebody has changed since stays, and is named', async () => {
		apply(await stage('update'))
		change('NH-002', DEPTH, 7)
		change('GS-002', STATE, 'Watch')
		expect(undo()).toEqual({
			undone: 1,
			kept: [
				{ label: 'GS-002', message: 'state was changed since.' },
				{ label: 'NH-002', message: 'depth was changed since.' }
			],
			keptCount: 2
		})
		expect(shown()).toMatchObject({
			'NH-002': ['Varrow Quay', 7, 'Watch', null],
			'GS-002': ['Ness Hythe', 1.5, 'Watch', '2026-02-02']
		})
		expect(shown()).not.toHaveProperty('GS-001')
	})

	test('a cell that was changed beside those of the file does not stand in the way', async () => {
		apply(await stage('update'))
		change('NH-002', SEEN, '2026-03-03')
		expect(undo()).toMatchObject({ undone: 3, keptCount: 0 })
		expect(shown()['NH-002']).toEqual(['Ness Hythe', 6, 'Watch', '2026-03-03'])
	})

	test('a row that went since is named; one that is needed by others stays', async () => {
		apply(await stage('update'))
		changeRows(store, [{ kind: 'remove', table: MOORINGS, row: rowOf('NH-002') }], { actor, now: NOW, through: 'test' })
		expect(undo()).toMatchObject({ undone: 2, kept: [{ message: 'It was removed since.' }] })
	})

	test('not after thirty days, when what was taken out is gone for good; nor by who does not keep the table', async () => {
		apply(await stage('replace'))
		expect(findUndoable(store, MOORINGS, NOW)).toMatchObject({ file: 'moorings.csv' })
		expect(() => undo(NOW + 30 * 86_400_000)).toThrow('There is nothing that can be undone')
		expect(() => undoMerge(store, { table: MOORINGS, actor: { person: 99 }, now: NOW })).toThrow(AppError)
	})
})
