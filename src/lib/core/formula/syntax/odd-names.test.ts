/** Names of columns that are more than words: read as they stand, coloured and completed, and never at the cost of another meaning. */
import { describe, expect, test } from 'vitest'
import { buildWorkspace } from '../../workspace/catalogue.ts'
import type { ColumnEntry, WorkspaceDocument } from '../../workspace/document.ts'
import { completionsAt } from './caret.ts'
import { check } from '../check/check.ts'
import { partsOfText } from './colours.ts'
import { isOddName } from './odd-names.ts'
import { renameIn } from '../check/rename.ts'

const NAMES: readonly [string, ColumnEntry['type']][] = [
	['Keeper e-mail', 'email'],
	['Keeper', 'text'],
	['Price (net)', 'money'],
	['Price', 'money'],
	['24 h rate', 'money'],
	['Loss %', 'decimal'],
	['Bed and board', 'money'],
	['a', 'decimal'],
	['b', 'decimal'],
	['N/A', 'text'],
	['Länge ü. A.', 'decimal']
]

function workspace(names: readonly (readonly [string, ColumnEntry['type']])[]): WorkspaceDocument {
	const columns = names.map(([name, type], i): ColumnEntry => ({ id: 20 + i, name, type }))
	const keepers = [1]
	return {
		format: 2,
		name: 'Trial',
		timeZone: 'UTC',
		people: 1,
		tables: [
			{ id: 1, name: 'People', keepers, label: 1, columns: [{ id: 1, name: 'E-mail', type: 'email' }] },
			{ id: 2, name: 'Berths', keepers, label: 20, columns },
			{
				id: 3,
				name: 'Stays',
				keepers,
				label: 90,
				columns: [
					{ id: 90, name: 'Note', type: 'text' },
					{ id: 91, name: 'Berth', type: 'reference', to: 2, reverseName: 'stays (all)' }
				]
			}
		],
		roles: [],
		lines: []
	}
}

const { catalogue } = buildWorkspace(workspace(NAMES))
const berths = catalogue.tables.get(2)
const stays = catalogue.tables.get(3)
if (!berths || !stays) throw new Error('Expected both tables')

const read = (text: string, table = berths, of = catalogue) => {
	const names: number[] = []
	const { issues } = check(text, {
		catalogue: of,
		rows: [table],
		me: true,
		onName: (use) => void names.push(use.column)
	})
	return issues.length > 0 ? (issues[0]?.code ?? '') : names
}

const cases: [text: string, columns: number[] | string][] = [
	['Keeper e-mail = "x"', [20]],
	['keeper E-MAIL = me.E-mail', [20, 1]],
	['\'Keeper e-mail\' = "x"', [20]],
	['Keeper = Keeper e-mail', [21, 20]],
	['Price (net) * 2', [22]],
	['Price + Price (net)', [23, 22]],
	['24 h rate + 24', [24]],
	['Loss % > 3', [25]],
	['LEN(Keeper e-mail) > 3 and Price (net) > 24 h rate', [20, 22, 24]],
	['N/A = ""', [29]],
	['Länge ü. A. > 3', [30]],
	// A text in quotes stays a text, and so does a word that only begins so.
	['Keeper = "Keeper e-mail"', [21]],
	['Keeper e-mailer = "x"', 'unknown_column'],
	// Two of a table's columns with an operator between, while no column is called so.
	['a-b', [27, 28]],
	['a - b', [27, 28]],
	['Bed and board > 3', 'ambiguous_name']
]
test.each(cases)('%s', (text, want) => {
	expect(read(text)).toEqual(want)
})

test('through a reference, and a set', () => {
	expect(read('Berth.Keeper e-mail = "x"', stays)).toEqual([91, 20])
	expect(read('COUNT(stays (all)) > 1')).toEqual([91])
	expect(read('COUNT(FILTER(stays (all); Berth.Price (net) > this.Price (net)))')).toEqual([91, 91, 22, 22])
})

test('the longest name wins; a name of another table takes nothing away', () => {
	const longer = buildWorkspace(workspace([...NAMES, ['a-b', 'decimal']])).catalogue
	expect(read('a-b', longer.tables.get(2), longer)).toEqual([31])
	const elsewhere = workspace(NAMES)
	elsewhere.tables[2]?.columns.push({ id: 92, name: 'a-b', type: 'decimal' })
	const other = buildWorkspace(elsewhere).catalogue
	expect(read('a-b', other.tables.get(2), other)).toEqual([27, 28])
})

test('a new column changes no formula’s meaning: the old one is put in quotes', () => {
	const after = buildWorkspace(workspace([...NAMES, ['a-b', 'decimal']])).catalogue
	expect(renameIn('a-b', { table: 2, me: true }, catalogue, after)).toBe("'a'-'b'")
	expect(renameIn('Keeper e-mail = "x"', { table: 2, me: true }, catalogue, after)).toBe('Keeper e-mail = "x"')
})

test('a formula over a table that was never here stays as it stands', () => {
	for (const standing of [
		{ table: 99, me: true },
		{ table: 2, outer: 99, me: true }
	])
		expect(renameIn('a > 1', standing, catalogue, catalogue)).toBe('a > 1')
})

test('what can be read in two ways is asked, and one press puts the quotes in', () => {
	const { issues } = check('Bed and board > 3', { catalogue, rows: [berths], me: true })
	const mend = issues[0]?.mend
	expect(mend).toEqual({
		says: "Read 'Bed and board' as the column",
		span: { from: 0, to: 13 },
		text: "'Bed and board'"
	})
	expect(read("'Bed and board' > 3")).toEqual([26])
})

describe('while it is written', () => {
	test('it is one name in colour', () => {
		const parts = partsOfText('Keeper e-mail = me.Keeper', ['Keeper', 'Keeper e-mail'])
		expect(parts.map(({ from, to, kind }) => [from, to, kind])).toEqual([
			[0, 13, 'name'],
			[14, 15, 'sign'],
			[16, 18, 'word'],
			[18, 19, 'sign'],
			[19, 25, 'name']
		])
	})

	test('it is offered past its sign', () => {
		const names = ['Keeper', 'Keeper e-mail']
		expect(completionsAt('Depth > 3 and Keeper e-m', 24, names)).toEqual([{ name: 'Keeper e-mail', from: 14 }])
		expect(completionsAt('Depth + Ke', 10, names).map(({ name }) => name)).toEqual(names)
	})
})

test.each([
	['Keeper e-mail', true],
	['next due', false],
	['24 h rate', true],
	['1234', false],
	['12-34', false],
	["harbour's", false],
	['in/out', false],
	['-', false],
	[' padded-name ', false]
])('%s is one: %s', (name, want) => {
	expect(isOddName(name)).toBe(want)
})
