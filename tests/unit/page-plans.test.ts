/**
 * What a page asks of the database: each thing once, nothing that its reader never sees, by branches that an index can serve, and
 * with a way to be ended where a reader's own filters make it long.
 */
import { beforeAll, describe, expect, test } from 'vitest'
import type { Filter } from '$lib/core/query/filter.ts'
import { columnsSought, toCondition } from '$lib/core/query/filter.ts'
import { planAnchors, planCount, planPage } from '$lib/core/query/plan.ts'
import { planGroups } from '$lib/core/query/groups.ts'
import type { Cursor, PageRequest } from '$lib/core/query/request.ts'
import { candidatesOf, indexedColumns } from '$lib/core/query/text-search.ts'
import { getColumn, getTable, type Table } from '$lib/core/model/table.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { standingOf } from '$lib/server/rights/rights-of-actor.ts'
import type { Store } from '$lib/server/store/store.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [PORTS, P_NAME, P_NO] = [2, 20, 21]
const [BUOYS, CODE, PORT, DEPTH, WORTH, NOTE, STATE, MARKS, DAY, TWICE, GAP] = [
	3, 30, 31, 32, 33, 34, 35, 36, 37, 38, 39
]
const [CREW, IMKE] = [10, 2]

let store: Store
let buoys: Table

beforeAll(() => {
	const keepers = [KEEPER]
	const line = (id: string, where: string, columns: LineEntry['columns'], verbs: LineEntry['verbs'] = ['see']) => ({
		...{ id, table: BUOYS, role: CREW, verbs, where, columns }
	})
	store = openScratch({
		now: NOW,
		roles: [{ id: CREW, name: 'Crew', includes: [] }],
		lines: [
			line('a', 'state = "Sound"', { kind: 'except', columns: [WORTH, GAP] }, ['see', 'change', 'remove']),
			line('b', 'day > "2026-01-01"', { kind: 'only', columns: [DEPTH, CODE] }, ['see', 'change'])
		],
		tables: [
			{
				...{ id: PORTS, name: 'ports', keepers, label: P_NAME },
				columns: [
					{ id: P_NAME, name: 'name', type: 'text' },
					{ id: P_NO, name: 'no', type: 'whole number' }
				]
			},
			{
				...{ id: BUOYS, name: 'buoys', keepers, label: CODE },
				columns: [
					{ id: CODE, name: 'code', type: 'text' },
					{ id: PORT, name: 'port', type: 'reference', to: PORTS, reverseName: 'buoys' },
					{ id: DEPTH, name: 'depth', type: 'decimal', places: 1 },
					{ id: WORTH, name: 'worth', type: 'whole number' },
					{ id: NOTE, name: 'note', type: 'long text' },
					{ id: STATE, name: 'state', type: 'choice', choices: ['Sound', 'Worn'] },
					{ id: MARKS, name: 'marks', type: 'several choices', choices: ['Bell', 'Lamp'] },
					{ id: DAY, name: 'day', type: 'date' },
					{ id: TWICE, name: 'twice', type: 'computed', formula: 'port.no * 2' },
					{ id: GAP, name: 'gap', type: 'computed', formula: '1 / port.no' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke', 'i@x.example', 'i@x.example');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW})`)
	buoys = getTable(store.workspace().catalogue, BUOYS)
})

const plans = (person: number) => {
	const { rights } = standingOf(store, { person }, NOW)
	return { catalogue: store.workspace().catalogue, rights }
}
const column = (id: number) => getColumn(buoys, id)
const filter = (id: number, text: string, is: Filter['is'] = 'contains'): Filter => ({ column: id, is, text })
const where = (...filters: Filter[]) =>
	filters.flatMap((each) => toCondition(each, buoys, store.workspace().catalogue) ?? [])
type Asked = Partial<Omit<PageRequest, 'columns' | 'sort'>> & { columns?: number[]; sort?: number }
const page = (person: number, { columns = [CODE], sort, ...more }: Asked = {}, descending = false) =>
	planPage(
		{
			...{ table: buoys, where: [], columns: columns.map(column) },
			...(sort === undefined ? {} : { sort: { column: column(sort), descending } }),
			...more
		},
		plans(person)
	)
const times = (text: string, part: string) => text.split(part).length - 1

describe('a page', () => {
	test('asks for nothing that is never seen, and for flags that say the same once', () => {
		const [first] = page(IMKE, { columns: [WORTH, NOTE, STATE, MARKS] }).branches
		expect(first?.text).not.toContain(`c${WORTH}`)
		expect(times(first?.text ?? '', 'CASE WHEN')).toBe(1)
		const cells = page(IMKE, { columns: [CODE, DEPTH, NOTE, WORTH, STATE] }).cells
		expect(cells.map((cell) => cell.column.id)).toEqual([CODE, DEPTH, NOTE, STATE])
		expect(cells.map(({ seenAt }) => seenAt !== undefined)).toEqual([false, false, true, true])
		expect(cells[2]?.seenAt).toBe(cells[3]?.seenAt)
		expect(new Set(cells.map(({ at }) => at)).size).toBe(4)
		expect(page(KEEPER, { columns: [CODE, WORTH] }).cells.map(({ seenAt }) => seenAt)).toEqual([undefined, undefined])
	})

	test('asks whether a computed cell is in error only where it can be', () => {
		const errors = page(KEEPER, { columns: [TWICE, GAP] }).cells.map(({ errorAt }) => errorAt !== undefined)
		expect(errors).toEqual([false, true])
	})

	test('reads the label of a reference, and whether it is seen only where that is not always so', () => {
		expect(page(KEEPER, { columns: [PORT] }).cells[0]?.label).toMatchObject({ column: { id: P_NAME } })
		expect(page(KEEPER, { columns: [PORT] }).cells[0]?.label?.seenAt).toBeUndefined()
		expect(page(IMKE, { columns: [PORT] }).cells[0]?.label?.seenAt).toBeDefined()
	})

	test('ordered by a column that is shown does not read it twice', () => {
		const { cells, sortAt } = page(KEEPER, { columns: [WORTH, CODE], sort: WORTH })
		expect(sortAt).toEqual([cells[0]?.at])
		expect(page(KEEPER, { columns: [CODE], sort: WORTH }).sortAt).toEqual([3])
	})

	test('has a branch for what is filled, what is blank, and what is not seen', () => {
		expect(page(KEEPER).branches).toHaveLength(1)
		expect(page(KEEPER, { sort: WORTH }).branches.map(({ text }) => /WHERE (.*)/.exec(text)?.[1])).toEqual([
			`r.c${WORTH} IS NOT NULL ORDER BY r.c${WORTH}, r.n`,
			`r.c${WORTH} IS NULL ORDER BY r.n`
		])
		expect(page(KEEPER, { sort: WORTH }, true).branches[0]?.text).toContain(`ORDER BY r.c${WORTH} DESC, r.n DESC`)
		const masked = page(IMKE, { sort: NOTE }).branches
		expect(masked).toHaveLength(3)
		expect(masked[2]?.text).toContain('IS NOT TRUE')
		// By what is seen nowhere nothing is ordered.
		expect(page(IMKE, { sort: WORTH }).branches).toHaveLength(1)
	})

	test('further keys put blanks last, and what is not seen among them', () => {
		const then = [{ column: column(STATE), descending: true }]
		const [first] = page(IMKE, { sort: CODE, then }).branches
		expect(first?.text).toMatch(new RegExp(`ORDER BY r\\.c${CODE}k, \\(CASE WHEN .* THEN r\\.c${STATE} END\\) DESC NULLS LAST, r\\.n$`)) // prettier-ignore
	})

	test('goes on after a cursor: branches before it are not read, its own from its place', () => {
		const after = (branch: number, values: Cursor['values']): Cursor => ({ branch, values, n: 9 })
		const first = page(KEEPER, { sort: WORTH, after: after(0, [5]) }).branches
		expect(first[0]?.text).toContain(`(r.c${WORTH}, r.n) > (?, ?)`)
		expect(first[0]?.params.slice(-2)).toEqual([5, 9])
		expect(first[1]?.text).not.toContain('?')
		const second = page(KEEPER, { sort: WORTH, after: after(1, [null]) }).branches
		expect(second[0]?.text).toBe('SELECT 1 WHERE 0')
		expect(second[1]?.text).toContain('r.n > ?')
		const falling = page(KEEPER, { sort: WORTH, after: after(0, [5]) }, true).branches
		expect(falling[0]?.text).toContain(`(r.c${WORTH}, r.n) < (?, ?)`)
		// By two keys: an index over the first can still start from its value.
		const then = [{ column: column(DAY), descending: false }]
		const two = page(KEEPER, { sort: WORTH, then, after: after(0, [5, null]) }).branches
		expect(two[0]?.text).toContain(`r.c${WORTH} >= ?`)
		expect(page(KEEPER, { sort: WORTH, then, after: after(0, [5, null]) }, true).branches[0]?.text).toContain(`r.c${WORTH} <= ?`) // prettier-ignore
	})

	test('of what somebody filters can be ended from inside; what lines ask alone goes without', () => {
		expect(page(IMKE).branches[0]?.text).not.toContain('tick()')
		expect(page(IMKE, { where: where(filter(CODE, 'x')) }).branches[0]?.text).toContain('tick()')
		expect(page(KEEPER, { where: [{ kind: 'literal', value: true, type: { kind: 'yesno' } }] }).branches[0]?.text).not.toContain('WHERE r') // prettier-ignore
	})

	test('of one row, or of rows that point to one, asks for those', () => {
		expect(page(KEEPER, { row: 5 }).branches[0]).toMatchObject({ params: [5] })
		const pointing = { column: column(PORT), to: 7 }
		expect(page(KEEPER, { pointing }).branches[0]?.text).toContain(`r.c${PORT} = ?`)
		// Where the reference is seen on some rows only, there alone.
		expect(page(IMKE, { pointing, columns: [] }).branches[0]?.params.length).toBeGreaterThan(
			page(IMKE, { columns: [] }).branches[0]?.params.length ?? 0
		)
	})

	test('says what may be done with a row where that was asked, each right by a flag of its own', () => {
		expect(page(IMKE).offers).toBeUndefined()
		const offers = page(IMKE, { offers: true }).offers
		expect(offers?.change.map(({ right }) => right.line?.id)).toEqual(['a', 'b'])
		expect(new Set(offers?.change.map(({ at }) => at)).size).toBe(2)
		expect(offers?.removeAt).toBe(offers?.change[0]?.at)
		expect(page(KEEPER, { offers: true }).offers?.removeAt).toBeDefined()
	})
})

describe('counting', () => {
	test('asks for no condition where there is none, and no further than it is told', () => {
		const [anchor] = planAnchors({ table: buoys, where: [], columns: [] }, plans(KEEPER))
		expect(anchor?.count.text).toBe(`SELECT count(*) FROM t${BUOYS} AS r`)
		const [own] = planAnchors({ table: buoys, where: [], columns: [] }, plans(IMKE))
		expect(own?.count.text).toContain('WHERE')
		expect(planCount({ table: buoys, where: [], columns: [] }, plans(KEEPER), 12).text).toContain('LIMIT 12')
	})

	test('by value leaves out columns that are seen nowhere, or whose values are not told apart', () => {
		const groups = (person: number, id: number) => planGroups({ table: buoys, where: [] }, column(id), plans(person))
		expect(groups(IMKE, WORTH)).toBeUndefined()
		expect([NOTE, MARKS].map((id) => groups(KEEPER, id))).toEqual([undefined, undefined])
		expect([CODE, PORT, DEPTH, STATE, DAY, TWICE].map((id) => groups(KEEPER, id)?.as)).toEqual([
			...['words', 'references', 'numbers', 'words', 'dates', 'numbers']
		])
	})
})

describe('a text that is looked for', () => {
	const sought = (id: number, text: string) =>
		columnsSought(filter(id, text), buoys, store.workspace().catalogue).map((each) => each.id)
	test.each([
		['lamp', [CODE, PORT, NOTE, MARKS]],
		['worn', [CODE, PORT, NOTE, STATE, MARKS]],
		['12', [CODE, PORT, DEPTH, WORTH, NOTE, MARKS, DAY, TWICE, GAP]],
		['1.5', [CODE, PORT, DEPTH, WORTH, NOTE, MARKS, TWICE, GAP]],
		['2026-01', [CODE, PORT, DEPTH, WORTH, NOTE, MARKS, DAY, TWICE, GAP]]
	])('"%s" is looked for where it can stand', (text, wanted) => {
		expect(sought(0, text)).toEqual(wanted)
		expect(sought(NOTE, text)).toEqual([NOTE])
		expect(sought(STATE, text)).toEqual(wanted.filter((id) => id === STATE))
	})

	test('is found by the index of texts, and by the labels of references; where it cannot tell, not at all', () => {
		const candidates = (id: number, text: string, is: Filter['is'] = 'contains') =>
			candidatesOf({ filter: filter(id, text, is), table: buoys, catalogue: store.workspace().catalogue })
		expect(indexedColumns(buoys).map((each) => each.id)).toEqual([CODE, NOTE, MARKS])
		expect(candidates(NOTE, 'wreck')).toEqual({ text: `SELECT rowid AS n FROM s${BUOYS} WHERE s${BUOYS} MATCH ?`, params: ['"wre" AND "rec" AND "eck"'] }) // prettier-ignore
		expect(candidates(PORT, ' Ness ')).toEqual({ text: `SELECT q.n FROM t${BUOYS} AS q WHERE q.c${PORT} IN (SELECT x.n FROM t${PORTS} AS x WHERE instr(x.c${P_NAME}k, ?) > 0)`, params: ['ness'] }) // prettier-ignore
		expect(candidates(0, 'lamp')?.text.split(' UNION ')).toHaveLength(2)
		// A choice stands in no index, so that any column may hold what none of it names.
		expect(candidates(0, 'worn')).toBeUndefined()
		expect(candidates(WORTH, '123')).toBeUndefined()
		expect(candidates(NOTE, 'ab')).toBeUndefined()
		expect(candidates(NOTE, 'wreck', 'equal')).toBeUndefined()
		expect(candidates(STATE, 'nowhere')).toBeUndefined()
	})
})
