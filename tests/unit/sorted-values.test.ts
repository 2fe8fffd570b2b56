/** By what rows are ordered for a reader, and when that would mean to count other rows anew for each of them. */
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { getColumn, getTable } from '$lib/core/model/table.ts'
import { countsAnew, sortOf } from '$lib/core/query/sorted-value.ts'
import type { ColumnEntry } from '$lib/core/workspace/document.ts'
import { standingOf } from '$lib/server/rights/rights-of-actor.ts'
import type { Store } from '$lib/server/store/store.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { seeLine } from '../support/see-line.ts'

const NOW = Date.parse('2026-11-29T12:00:00Z')
const [HARBOURS, MOORINGS] = [2, 3]
const [HARBOUR, DIVER, DONE, COST] = [30, 31, 32, 33]
/** Whom a kept total serves: everybody's rows, those of one's harbour, those that hold oneself, or none without counting. */
const READERS = { keeper: KEEPER, all: 2, harbour: 3, diver: 4, done: 5, hidden: 6, part: 7 }
type Reader = keyof typeof READERS
const WHERE: Readonly<Record<Exclude<Reader, 'keeper'>, string>> = {
	all: '',
	harbour: 'harbour = me.harbour',
	diver: 'diver = me',
	done: 'done',
	hidden: '',
	part: ''
}

/** Columns of a harbour, by what is asked of them. */
const COLUMNS: readonly (readonly [name: string, formula: string, vouched?: true])[] = [
	['total', 'COUNT(moorings)'],
	['total for all', 'COUNT(moorings)', true],
	['mean', 'AVERAGE(moorings.cost)'],
	['doubled', '2 * COUNT(moorings)'],
	['after total', 'total + 1'],
	['after total for all', 'total + 1', true],
	['after mooted', 'mooted + 1'],
	['mooted', 'COUNT(FILTER(moorings; day < TODAY()))'],
	['mooted for all', 'COUNT(FILTER(moorings; day < TODAY()))', true],
	['both', 'COUNT(moorings) + COUNT(FILTER(moorings; day < TODAY()))'],
	['both for all', 'COUNT(moorings) + COUNT(FILTER(moorings; day < TODAY()))', true],
	['days open', 'TODAY() - opened'],
	['loud', 'UPPER(name)'],
	['loud total', 'name & total']
]
const BEFORE = 40
const idOf = (name: string) => BEFORE + COLUMNS.findIndex(([each]) => each === name)

let store: Store

beforeAll(() => {
	const people = Object.entries(READERS).filter(([, person]) => person !== KEEPER)
	const [seeHarbours, seeMoorings] = [seeLine(HARBOURS), seeLine(MOORINGS)]
	const computed = COLUMNS.map(([name, formula, vouched]): ColumnEntry => ({
		...{ id: idOf(name), name, type: 'computed', formula },
		...(vouched && { vouched })
	}))
	store = openScratch({
		now: NOW,
		peopleColumns: [{ id: 3, name: 'harbour', type: 'reference', to: HARBOURS, reverseName: 'people' }],
		roles: people.map(([name, person]) => ({ id: 10 + person, name, includes: [] })),
		lines: people.flatMap(([name, person]) => [
			...(name === 'part'
				? [seeHarbours('h-few', 10 + person, '', [idOf('mooted')]), seeHarbours('h-all', 10 + person, 'berths > 3')]
				: [seeHarbours(`h-${name}`, 10 + person, '')]),
			seeMoorings(`m-${name}`, 10 + person, WHERE[name as keyof typeof WHERE], name === 'hidden' ? [COST] : [])
		]),
		tables: [
			{
				...{ id: HARBOURS, name: 'harbours', keepers: [KEEPER], label: 20 },
				columns: [
					{ id: 20, name: 'name', type: 'text' },
					{ id: 21, name: 'opened', type: 'date' },
					{ id: 22, name: 'berths', type: 'whole number' },
					...computed
				]
			},
			{
				...{ id: MOORINGS, name: 'moorings', keepers: [KEEPER], label: 34 },
				columns: [
					{ id: HARBOUR, name: 'harbour', type: 'reference', to: HARBOURS, reverseName: 'moorings' },
					{ id: DIVER, name: 'diver', type: 'reference', to: 1, reverseName: 'moorings' },
					{ id: DONE, name: 'done', type: 'yes/no' },
					{ id: COST, name: 'cost', type: 'money' },
					{ id: 34, name: 'code', type: 'text' },
					{ id: 35, name: 'day', type: 'date' }
				]
			}
		]
	})
	for (const [name, person] of people)
		store.db.exec(`
			INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c3) VALUES (${person}, 0, 0, '${name}', '${name}', '${name}@x.example', '${name}@x.example', 1);
			INSERT INTO role_held (person, role) VALUES (${person}, ${10 + person})`)
})
afterAll(() => store.db.close())

const rightsOf = (reader: Reader) => standingOf(store, { person: READERS[reader] }, NOW).rights
const harbours = () => getTable(store.workspace().catalogue, HARBOURS)
const columnOf = (name: string) => {
	const column = harbours().columns.find((each) => each.name === name)
	if (!column) throw new Error(`Expected a column "${name}"`)
	return column
}

describe('counting anew', () => {
	const EVERYBODY: readonly Reader[] = ['keeper', 'all', 'harbour', 'diver', 'done', 'hidden']

	test.each<[string, readonly Reader[]]>([
		// What is kept serves whoever sees all children, those of one parent, or those that hold one value.
		['total', ['done']],
		['doubled', ['done']],
		['after total', ['done']],
		['loud total', ['done']],
		// The cost of a mooring is hidden from one of them: what they would not count is not served.
		['mean', ['done', 'hidden']],
		['total for all', []],
		['after total for all', []],
		// By the day: nothing is kept, so each row is counted.
		['mooted', EVERYBODY],
		['after mooted', EVERYBODY],
		['both', EVERYBODY],
		['mooted for all', EVERYBODY],
		['both for all', EVERYBODY],
		// No other rows are asked.
		['days open', []],
		['loud', []],
		['berths', []]
	])('for "%s": %j', (name, readers) => {
		expect(EVERYBODY.filter((reader) => countsAnew(columnOf(name), rightsOf(reader)))).toEqual(readers)
	})
})

describe('the place that orders rows', () => {
	const placeOf = (name: string, reader: Reader): string | undefined => {
		const rights = rightsOf(reader)
		const { catalogue } = store.workspace()
		return sortOf(harbours(), columnOf(name), { catalogue, rights, ctx: newContext('r', rights.moment, rights) })?.value
			.text
	}
	const kept = (name: string, part: string) => `r.c${idOf(name)}t0${part}`

	test.each<[string, Reader, string]>([
		['berths', 'all', 'r.c22'],
		['name', 'all', 'r.c20k'],
		// Text that is worked out lies in the row with its key, so that an index serves it.
		['loud', 'all', `r.c${idOf('loud')}k`],
		['total', 'all', kept('total', 'n')],
		['mean', 'all', kept('mean', 'm')],
		['total for all', 'done', kept('total for all', 'n')]
	])('of "%s" for %s is %s', (name, reader, place) => {
		expect(placeOf(name, reader)).toBe(place)
	})

	test.each<[string, Reader]>([
		// Served, but not the same place on every row.
		['total', 'harbour'],
		['total', 'diver'],
		['total', 'done'],
		['mean', 'hidden'],
		// More than one total, or a total and more.
		['doubled', 'all'],
		['both', 'all'],
		['mooted', 'all'],
		['after total', 'all']
	])('of "%s" for %s is no single one', (name, reader) => {
		expect(placeOf(name, reader)).not.toMatch(/^r\.\w+$/)
	})

	test('of a column that is seen on some rows is asked for its mask once, beside it', () => {
		const { catalogue } = store.workspace()
		const sorted = (reader: Reader) => {
			const rights = rightsOf(reader)
			return sortOf(harbours(), columnOf('mooted'), { catalogue, rights, ctx: newContext('r', rights.moment, rights) })
		}
		expect(sorted('part')?.mask?.text).toContain('r.c22')
		expect(sorted('part')?.value.text).toBe(sorted('all')?.value.text)
		expect(sorted('all')?.mask).toBeUndefined()
	})

	test('is the text as it is compared, behind its reference, of rows and cells that are seen', () => {
		const column = getColumn(getTable(store.workspace().catalogue, MOORINGS), HARBOUR)
		const sorted = (reader: Reader) => {
			const rights = rightsOf(reader)
			const { catalogue } = store.workspace()
			const plans = { catalogue, rights, ctx: newContext('r', rights.moment, rights) }
			return sortOf(getTable(catalogue, MOORINGS), column, plans)?.value.text
		}
		expect(sorted('all')).toMatch(/^\(SELECT (\w+)\.c20k FROM t2 AS \1 WHERE \1\.n = r\.c30\)$/)
		expect(sorted('keeper')).toBe(sorted('all'))
	})
})
