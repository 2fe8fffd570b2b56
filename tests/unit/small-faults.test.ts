/**
 * Faults so small that the larger tests pass over them: each of these fails where one thing of the doors is left out. A register of
 * moorings with harbours and findings; Imke (2) and Osric (3) hold roles of their own, Petra (4) holds none and was asked.
 */
import { beforeEach, describe, expect, test } from 'vitest'
import type { AppDocument } from '$lib/core/app/document.ts'
import type { Change } from '$lib/core/query/change.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readAnchors } from '$lib/server/rows/read-anchors.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { RowsRequest } from '$lib/server/rows/resolve.ts'
import { readGroups } from '$lib/server/rows/read-groups.ts'
import { caseOfRow, decideCase, listCases, readCase } from '$lib/server/signoffs/cases.ts'
import type { Store } from '$lib/server/store/store.ts'
import { oneListApp } from '../support/one-list-app.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [HARBOURS, H_NAME, H_DUES] = [2, 20, 21]
const [MOORINGS, CODE, HARBOUR, WORTH, RATIO, DUES, FINDINGS_COUNT, TAG] = [3, 30, 31, 32, 33, 34, 35, 36]
const [FINDINGS, WHAT, MOORING, GRAVE] = [4, 40, 41, 42]
const [DIVERS, MASTERS] = [10, 11]
const [IMKE, OSRIC, PETRA] = [2, 3, 4]

const line = (id: string, table: number, role: number, parts: Partial<LineEntry> = {}): LineEntry => ({
	...{ id, table, role, verbs: ['see'], where: '', columns: { kind: 'all' } },
	...parts
})
const except = (...columns: number[]) => ({ columns: { kind: 'except' as const, columns } })

let store: Store

function open(lines: LineEntry[]): void {
	const keepers = [KEEPER]
	store = openScratch({
		now: NOW,
		peopleColumns: [{ id: 9, name: 'grade', type: 'text' }],
		roles: [
			{ id: DIVERS, name: 'Divers', includes: [] },
			{ id: MASTERS, name: 'Masters', includes: [] }
		],
		lines,
		tables: [
			{
				id: HARBOURS,
				name: 'harbours',
				keepers,
				label: H_NAME,
				columns: [
					{ id: H_NAME, name: 'name', type: 'text' },
					{ id: H_DUES, name: 'dues', type: 'whole number' }
				]
			},
			{
				id: MOORINGS,
				name: 'moorings',
				keepers,
				label: CODE,
				columns: [
					{ id: CODE, name: 'code', type: 'text' },
					{ id: HARBOUR, name: 'harbour', type: 'reference', to: HARBOURS, reverseName: 'moorings' },
					{ id: WORTH, name: 'worth', type: 'whole number' },
					{ id: RATIO, name: 'ratio', type: 'computed', formula: '100 / worth' },
					{ id: DUES, name: 'their dues', type: 'computed', formula: 'harbour.dues' },
					{ id: FINDINGS_COUNT, name: 'how many', type: 'computed', formula: 'COUNT(findings)' },
					{ id: TAG, name: 'tag', type: 'text', unique: true }
				]
			},
			{
				id: FINDINGS,
				name: 'findings',
				keepers,
				label: WHAT,
				columns: [
					{ id: WHAT, name: 'what', type: 'text' },
					{ id: MOORING, name: 'mooring', type: 'reference', to: MOORINGS, reverseName: 'findings' },
					{ id: GRAVE, name: 'grave', type: 'yes/no' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke', 'i@x.example', 'i@x.example'),
			(${OSRIC}, 0, 0, 'Osric', 'osric', 'o@x.example', 'o@x.example'), (${PETRA}, 0, 0, 'Petra', 'petra', 'p@x.example', 'p@x.example');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${DIVERS}), (${OSRIC}, ${MASTERS});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21) VALUES (1, 0, 0, 'Ness', 'ness', 70), (2, 0, 0, 'Varrow', 'varrow', 90);`)
	const add = (table: number, all: Record<number, unknown>[]) =>
		changeRows(
			store,
			all.map((cells): Change => ({
				kind: 'add',
				table,
				cells: Object.entries(cells).map(([column, value]) => ({ column: Number(column), value: value as string }))
			})),
			{ actor: { person: KEEPER }, now: NOW, through: 'grid' }
		)
	const harbour = (n: number) => ({ id: store.ids.toId(HARBOURS, n) })
	add(MOORINGS, [
		{ [CODE]: 'NH-1', [HARBOUR]: harbour(1), [WORTH]: 500, [TAG]: 'red' },
		{ [CODE]: 'NH-2', [HARBOUR]: harbour(1), [WORTH]: 0, [TAG]: 'blue' },
		{ [CODE]: 'VQ-1', [HARBOUR]: harbour(2), [WORTH]: 777, [TAG]: 'green' }
	])
	const mooring = (n: number) => ({ id: store.ids.toId(MOORINGS, n) })
	add(FINDINGS, [
		{ [WHAT]: 'worn', [MOORING]: mooring(1), [GRAVE]: true },
		{ [WHAT]: 'bent', [MOORING]: mooring(1), [GRAVE]: false },
		{ [WHAT]: 'lost', [MOORING]: mooring(3), [GRAVE]: true }
	])
}

const read = (person: number, request: RowsRequest) => readRows(store, { person }, request, NOW)
const cells = (person: number, table: number, column: number) =>
	read(person, { table }).rows.map((row) => row.cells[cellKey(column)] ?? 'absent')
const change = (person: number, ...changes: Change[]) =>
	changeRows(store, changes, { actor: { person }, now: NOW, through: 'grid' })
const rowId = (table: number, n: number) => store.ids.toId(table, n)

describe('references', () => {
	test('the label of a row that is seen, but not in that column, is hidden', () => {
		open([line('m', MOORINGS, DIVERS), line('h', HARBOURS, DIVERS, except(H_NAME))])
		expect(read(IMKE, { table: HARBOURS }).rows).toHaveLength(2)
		expect(cells(IMKE, MOORINGS, HARBOUR)).toEqual([{ hidden: true }, { hidden: true }, { hidden: true }])
		const asked = { request: { table: MOORINGS }, column: HARBOUR, actor: { person: IMKE }, now: NOW }
		expect(JSON.stringify(readGroups(store, asked))).not.toContain('Ness')
	})

	test('nor are rows put in order by it, or found by it', () => {
		open([line('m', MOORINGS, DIVERS), line('h', HARBOURS, DIVERS, except(H_NAME))])
		const order = (descending: boolean) =>
			read(IMKE, { table: MOORINGS, sort: { column: HARBOUR, descending } }).rows.map((row) => row.id)
		expect(order(true)).toEqual(order(false))
		const filters = [{ column: HARBOUR, is: 'contains' as const, text: 'Ness' }]
		expect(readAnchors(store, { person: IMKE }, { table: MOORINGS, filters }, NOW).count).toBe(0)
		expect(readAnchors(store, { person: KEEPER }, { table: MOORINGS, filters }, NOW).count).toBe(2)
	})

	test('children whose reference is not seen are not counted', () => {
		open([
			line('m', MOORINGS, DIVERS),
			line('f', FINDINGS, DIVERS, except(MOORING)),
			line('m2', MOORINGS, MASTERS),
			line('f2', FINDINGS, MASTERS)
		])
		expect(read(IMKE, { table: FINDINGS }).rows).toHaveLength(3)
		expect(cells(IMKE, MOORINGS, FINDINGS_COUNT)).toEqual([0, 0, 0])
		expect(cells(OSRIC, MOORINGS, FINDINGS_COUNT)).toEqual([2, 0, 1])
		const pointing = { column: MOORING, to: rowId(MOORINGS, 1) }
		expect(read(IMKE, { table: FINDINGS, pointing }).rows).toHaveLength(0)
		expect(read(OSRIC, { table: FINDINGS, pointing }).rows).toHaveLength(2)
	})
})

describe('cells', () => {
	test('the error of a cell that is not seen shows nowhere, its column’s neither', () => {
		open([line('m', MOORINGS, DIVERS, except(WORTH)), line('o', MOORINGS, MASTERS)])
		expect(cells(OSRIC, MOORINGS, RATIO)).toEqual([0.2, { error: '#DIV/0!' }, expect.closeTo(100 / 777, 9)])
		expect(cells(IMKE, MOORINGS, RATIO)).toEqual(['absent', 'absent', 'absent'])
		expect(JSON.stringify(read(IMKE, { table: MOORINGS }))).not.toContain('DIV')
	})

	test('so it is where it is seen on some rows', () => {
		open([
			line('m', MOORINGS, DIVERS, except(WORTH)),
			line('s', MOORINGS, DIVERS, { where: 'code = "VQ-1"', columns: { kind: 'all' } })
		])
		expect(cells(IMKE, MOORINGS, RATIO)).toEqual(['absent', 'absent', expect.closeTo(100 / 777, 9)])
		const asked = { request: { table: MOORINGS }, column: RATIO, actor: { person: IMKE }, now: NOW }
		expect(JSON.stringify(readGroups(store, asked))).not.toContain('DIV')
	})

	test('a sorted value that is not seen is not in a cursor', () => {
		open([
			line('m', MOORINGS, DIVERS, except(WORTH)),
			line('s', MOORINGS, DIVERS, { where: 'code = "VQ-1"', columns: { kind: 'all' } })
		])
		const seen: string[] = []
		let after: string | undefined
		for (let i = 0; i < 3; i++) {
			const page = read(IMKE, { table: MOORINGS, sort: { column: WORTH, descending: true }, limit: 1, after })
			after = page.next ?? undefined
			seen.push(...page.rows.map((row) => String(row.cells[cellKey(CODE)])))
			if (!after) break
			const [, values] = JSON.parse(Buffer.from(after, 'base64url').toString()) as [number, unknown[]]
			if (i > 0) expect(values[0]).toBeNull()
			expect(JSON.stringify(values)).not.toContain('500')
		}
		expect(seen).toEqual(['VQ-1', 'NH-1', 'NH-2'])
	})

	test('a written grant opens the one column that it names, of the one row', () => {
		open([])
		store.db.exec(
			`INSERT INTO row_grant (person, table_id, row_n, column_id, case_id) VALUES (${PETRA}, ${MOORINGS}, 1, ${CODE}, 1)`
		)
		// Who holds no role at all is nobody here: Petra has one that lets her do nothing.
		store.db.exec(
			`INSERT INTO role_held (person, role) VALUES (${PETRA}, ${DIVERS}); UPDATE access_epoch SET n = n + 1`
		)
		const page = read(PETRA, { table: MOORINGS })
		expect(page.rows.map((row) => row.cells)).toEqual([{ [cellKey(CODE)]: 'NH-1' }])
	})

	test('of a row that is seen, but not in that column, a value that it has "cannot be used"', () => {
		open([
			line('m', MOORINGS, DIVERS, { verbs: ['see', 'add'], ...except(TAG) }),
			line('t', MOORINGS, DIVERS, { verbs: ['add'] })
		])
		const add = (person: number) => () =>
			change(person, {
				kind: 'add',
				table: MOORINGS,
				cells: [
					{ column: CODE, value: 'NH-9' },
					{ column: TAG, value: 'red' }
				]
			})
		expect(add(IMKE)).toThrow('tag: This value cannot be used.')
		expect(add(KEEPER)).toThrow('tag: another row has this value already.')
	})
})

describe('ids', () => {
	beforeEach(() =>
		open([
			line('m', MOORINGS, DIVERS, { verbs: ['see', 'change', 'remove'] }),
			line('f', FINDINGS, DIVERS, { verbs: ['see', 'change', 'remove'] })
		])
	)

	test('one of another table opens nothing, though a row of that number is there', () => {
		const foreign = rowId(FINDINGS, 1)
		expect(read(IMKE, { table: MOORINGS, row: rowId(MOORINGS, 1) }).rows).toHaveLength(1)
		expect(read(IMKE, { table: MOORINGS, row: foreign }).rows).toHaveLength(0)
		const cell = [{ column: CODE, value: 'mine' }]
		expect(() => change(IMKE, { kind: 'change', table: MOORINGS, row: foreign, cells: cell })).toThrow('not there')
		expect(() => change(IMKE, { kind: 'remove', table: MOORINGS, row: foreign })).toThrow('not there')
		const set = [{ column: MOORING, value: { id: rowId(HARBOURS, 1) } }]
		expect(() => change(IMKE, { kind: 'change', table: FINDINGS, row: rowId(FINDINGS, 1), cells: set })).toThrow()
	})

	test('a page holds no more than a thousand rows, whatever is asked', () => {
		store.db.exec(`
			WITH RECURSIVE i (n) AS (SELECT 100 UNION ALL SELECT n + 1 FROM i WHERE n < 2200)
			INSERT INTO t3 (n, made_at, changed_at, c30, c30k) SELECT n, 0, 0, 'X-' || n, 'x-' || n FROM i`)
		expect(read(IMKE, { table: MOORINGS, limit: 5_000 }).rows).toHaveLength(1_000)
		expect(read(IMKE, { table: MOORINGS, limit: 1_000_000 }).next).not.toBeNull()
		expect(read(IMKE, { table: MOORINGS, limit: 0 }).rows).toHaveLength(1)
		expect(read(IMKE, { table: MOORINGS, limit: -5 }).rows).toHaveLength(1)
		expect(read(IMKE, { table: MOORINGS, skip: 1_000_000, limit: 5 }).rows.length).toBeGreaterThan(0)
	})
})

describe('columns that decide', () => {
	test('are followed through computed ones, of people and of other tables', () => {
		const people = { id: 60, name: 'senior', type: 'computed' as const, formula: 'grade = "senior"' }
		open([])
		const { document } = store.workspace()
		const tables = document.tables.map((table) =>
			table.id === PEOPLE_TABLE ? { ...table, columns: [...table.columns, people] } : table
		)
		store = openScratch({
			now: NOW,
			peopleColumns: [{ id: 9, name: 'grade', type: 'text' }, people],
			roles: [{ id: DIVERS, name: 'Divers', includes: [] }],
			lines: [line('m', MOORINGS, DIVERS, { where: 'me.senior and their dues > 80' })],
			tables: tables.filter((table) => table.id !== PEOPLE_TABLE)
		})
		const { marked, deciding } = store.workspace()
		expect(marked.has(9)).toBe(true)
		expect(deciding.map(({ column }) => column.id)).toEqual(expect.arrayContaining([9, H_DUES, HARBOUR]))
	})
})

describe('what was decided', () => {
	const app: AppDocument = {
		...oneListApp('Moorings', MOORINGS, CODE),
		signoffs: [
			{
				...{ id: 's', name: 'New mooring', table: MOORINGS, where: 'worth > 800' },
				...{ decider: '"p@x.example"', columns: [CODE, WORTH] },
				children: [{ table: FINDINGS, column: MOORING, columns: [WHAT] }]
			}
		]
	}
	const all = { verbs: ['see', 'add', 'change', 'remove'] as LineEntry['verbs'] }
	let asked: string

	beforeEach(() => {
		open([line('m', MOORINGS, DIVERS, all), line('f', FINDINGS, DIVERS, all), line('o', MOORINGS, MASTERS)])
		store.db.exec(
			`INSERT INTO role_held (person, role) VALUES (${PETRA}, ${MASTERS}); UPDATE access_epoch SET n = n + 1`
		)
		const by = { actor: { person: KEEPER }, now: NOW }
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${KEEPER}, 2)`)
		store.db.exec(
			`UPDATE document SET body = json_insert(body, '$.roles[#]', json('{"id":2,"name":"Builders","includes":[]}')) WHERE kind = 'workspace'`
		)
		store.forget()
		const id = addAppFrom(store, { document: app, ...by })
		releaseApp(store, { app: id, note: '', ...by })
		const cellsOf = [
			{ column: CODE, value: 'NH-7' },
			{ column: WORTH, value: 900 }
		]
		asked = change(IMKE, { kind: 'add', table: MOORINGS, cells: cellsOf })[0]?.row ?? ''
	})

	const decide = (comment: string) => {
		const actor = { person: PETRA }
		const id = listCases(store, { actor, now: NOW }).waiting[0]?.id ?? ''
		const { fingerprint } = readCase(store, { id, actor, now: NOW })
		decideCase(store, { id, move: 'approve', comment, fingerprint, actor, now: NOW })
	}

	test.each(['while it waits', 'once it is decided'])('a row is not removed, nor is a child put to it: %s', (when) => {
		if (when === 'once it is decided') decide('Well done.')
		expect(() => change(IMKE, { kind: 'remove', table: MOORINGS, row: asked })).toThrow('Closed to changes')
		const move = [{ column: MOORING, value: { id: asked } }]
		expect(() => change(IMKE, { kind: 'change', table: FINDINGS, row: rowId(FINDINGS, 1), cells: move })).toThrow(
			'Closed to changes'
		)
		const add = [{ column: WHAT, value: 'new' }, ...move]
		expect(() => change(IMKE, { kind: 'add', table: FINDINGS, cells: add })).toThrow('Closed to changes')
		// What does not belong to it goes on.
		expect(() => change(IMKE, { kind: 'remove', table: FINDINGS, row: rowId(FINDINGS, 2) })).not.toThrow()
	})

	test('the comment is for who asked and who decided: not for others who see the row, nor in the Lookout', () => {
		decide('Between us.')
		const n = store.ids.fromId(MOORINGS, asked) ?? 0
		const comment = (actor: { person: number; lookedAtBy?: number }) =>
			caseOfRow(store, { table: MOORINGS, n, actor })?.comment
		expect(comment({ person: IMKE })).toBe('Between us.')
		expect(comment({ person: PETRA })).toBe('Between us.')
		expect(comment({ person: OSRIC })).toBe('')
		expect(comment({ person: IMKE, lookedAtBy: KEEPER })).toBe('')
		expect(caseOfRow(store, { table: MOORINGS, n, actor: { person: IMKE, lookedAtBy: KEEPER } })?.link).toBeNull()
	})
})
