import { describe, expect, test } from 'vitest'
import type { ColumnGuess, Doubt } from '$lib/core/exchange/guess.ts'
import { TYPED } from '$lib/core/model/writing.ts'
import type { BenchTable } from '$lib/core/requests/bench.ts'
import type { Inspection } from '$lib/core/requests/imports.ts'
import { goInto, goIntoNew, groupUnread, openDoubts, proposePlan, sayDoubt, settlePlan } from './import-plan.ts'

const guess = (name: string, more: Partial<ColumnGuess> = {}): ColumnGuess => ({
	...{ name, type: 'text', writing: TYPED, blank: false, doubts: [] },
	...more
})

const UNREADABLE: Doubt = { kind: 'unreadable', text: 'n/k', rows: [4] }
const SPELLING: Doubt = { kind: 'spelling', text: 'Goood', proposed: 'Good', rows: [7, 9] }
const OTHER: Doubt = { kind: 'other writing', text: '1,4', proposed: '1.4', rows: [14] }
const EITHER: Doubt = { kind: 'day or month', both: 12, dayOnly: 0, monthOnly: 3, sample: '03/04/2026' }
const POINT: Doubt = { kind: 'dot or comma', sample: '1.234', rows: [2] }

const inspectionOf = (columns: ColumnGuess[], sheets = ['']): Inspection =>
	({
		...{ sheet: sheets.at(-1) ?? '', sheets, headingRow: 2, overTwo: false, firstRow: 3, label: 0, rowCount: 9 },
		...{ noRows: [], groups: [], notes: [], keys: [] },
		columns
	}) as unknown as Inspection

const tableOf = (columns: object[], label = 1) =>
	({ id: 7, name: 'Moorings', label, columns, owned: true }) as unknown as BenchTable

describe('what is proposed', () => {
	test('takes the file’s name without its ending, every column that is not blank, and where the rows begin', () => {
		const plan = proposePlan(inspectionOf([guess('Code'), guess('Old', { blank: true })]), 'Mooring register.xlsx')
		expect(plan).toMatchObject({ tableName: 'Mooring register', headingRow: 2, firstRow: 3, label: 0 })
		expect(plan.columns.map(({ name, from, include }) => [name, from, include])).toEqual([
			['Code', 0, true],
			['Old', 1, false]
		])
	})

	test('of several sheets each has its own name', () => {
		expect(proposePlan(inspectionOf([guess('Code')], ['Chains', 'Anchors']), 'stores.ods').tableName).toBe('Anchors')
	})
})

describe('into a table that is there', () => {
	const plan = proposePlan(inspectionOf([guess('code'), guess('HARBOUR'), guess('remark')]), 'x.csv')
	const harbour = { id: 2, name: 'Harbour', type: 'reference', to: 5 }

	test('columns of one name go together whatever their case; the rest is left out', () => {
		const into = goInto(plan, tableOf([{ id: 1, name: 'Code', type: 'code' }, harbour]), [[0]])
		expect(into.tableName).toBe('Moorings')
		expect(into.columns.map(({ include, to, type }) => [include, to, type])).toEqual([
			[true, 1, 'code'],
			// A reference is read as the text that names its row.
			[true, 2, 'text'],
			[false, undefined, 'text']
		])
		expect(into.into).toEqual({ table: 7, how: 'update', keys: [1] })
	})

	test('rows are known by what the file tells its rows apart by, the table’s own first', () => {
		const code = { id: 1, name: 'Code', type: 'code' }
		const remark = { id: 3, name: 'Remark', type: 'text' }
		const known = (columns: Parameters<typeof tableOf>[0], keys: number[][]) => {
			const { how, keys: by } = goInto(plan, tableOf(columns), keys).into ?? {}
			return [how, by]
		}
		expect(known([code, harbour], [[2], [0]])).toEqual(['update', [1]])
		// Nothing tells them apart: the table's own is tried, and what is repeated is said.
		expect(known([code, harbour], [])).toEqual(['update', [1]])
		expect(known([code, harbour, remark], [[0, 2]])).toEqual(['update', [1, 3]])
		expect(
			known(
				[
					{ id: 9, name: 'Number', type: 'text' },
					{ ...harbour, unique: true }
				],
				[[2]]
			)
		).toEqual(['update', [2]])
		expect(known([{ id: 9, name: 'Number', type: 'text' }, remark], [[0], [2]])).toEqual(['update', [3]])
		expect(known([{ id: 9, name: 'Number', type: 'text' }, remark], [[0]])).toEqual(['add', []])
	})

	test('a computed column takes nothing; back into a table of its own, every column comes in again', () => {
		const into = goInto(plan, tableOf([{ id: 1, name: 'Code', type: 'computed' }]), [])
		expect(into.columns[0]?.include).toBe(false)
		const back = goIntoNew(into)
		expect(back).not.toHaveProperty('into')
		expect(back.columns.every((column) => column.include && !('to' in column))).toBe(true)
	})
})

describe('doubts', () => {
	const inspection = inspectionOf([
		guess('Seen', { type: 'date', doubts: [EITHER] }),
		guess('State', { type: 'choice', choices: ['Good'], doubts: [SPELLING] }),
		guess('Depth', { type: 'decimal', doubts: [OTHER, UNREADABLE, POINT] })
	])
	const plan = proposePlan(inspection, 'x.csv')
	const settled = (choices: Record<string, string>) => settlePlan(plan, openDoubts(inspection, plan), choices).columns

	test('those of columns that are left out, or have another type now, are no longer open', () => {
		expect(openDoubts(inspection, plan)).toHaveLength(5)
		const columns = plan.columns.map((column, i) =>
			i === 0 ? { ...column, include: false } : { ...column, type: 'text' as const }
		)
		expect(openDoubts(inspection, { ...plan, columns })).toEqual([])
	})

	test('as proposed: the reading with more evidence, a word as it stands, the mended number, a blank', () => {
		expect(settled({}).map(({ writing, fixes, choices }) => [writing.dates, fixes, choices])).toEqual([
			['month first', [], undefined],
			[TYPED.dates, [], ['Good', 'Goood']],
			[
				TYPED.dates,
				[
					['1,4', '1.4'],
					['n/k', null]
				],
				undefined
			]
		])
	})

	test.each([
		['day first after all', { '0 0': 'day first' }, 0, { writing: { ...TYPED, dates: 'day first' } }],
		['the nearest spelling', { '1 0': 'fix' }, 1, { choices: ['Good'], fixes: [['Goood', 'Good']] }],
		['a blank instead of a spelling', { '1 0': 'blank' }, 1, { fixes: [['Goood', null]] }],
		['the whole column as text', { '2 1': 'text' }, 2, { type: 'text' }],
		['the comma as the decimal point', { '2 2': ',' }, 2, { writing: { ...TYPED, decimal: ',' } }]
	])('%s', (_what, choices, column, wanted) => {
		expect(settled(choices as Record<string, string>)[column]).toMatchObject(wanted)
	})

	test.each([
		[UNREADABLE, 'row 4 says n/k, which cannot be read.'],
		[SPELLING, 'rows 7, 9 say Goood, which is nearly Good.'],
		[{ ...SPELLING, rows: [1, 2, 3, 4, 5, 6] }, 'rows 1, 2, 3, 4 and 2 more say Goood, which is nearly Good.'],
		[OTHER, 'row 14 says 1,4.'],
		[EITHER, 'reads two ways: 12 values fit both day first and month first, such as 03/04/2026.'],
		[POINT, 'could be thousands or decimals, such as 1.234.']
	])('%j is said with its place', (doubt, words) => {
		expect(sayDoubt(doubt as Doubt)).toBe(words)
	})
})

test('the same text in the same column is one thing to mend', () => {
	const cell = (row: number, column: string, text: string) => ({ row, column, text })
	expect(
		groupUnread([cell(2, 'Depth', 'n/k'), cell(5, 'Depth', 'n/k'), cell(5, 'Seen', 'n/k'), cell(9, 'Depth', '?')])
	).toEqual([
		{ column: 'Depth', text: 'n/k', rows: [2, 5] },
		{ column: 'Seen', text: 'n/k', rows: [5] },
		{ column: 'Depth', text: '?', rows: [9] }
	])
})
