import { BRITISH } from '../../model/writing.ts'
import { describe, expect, test } from 'vitest'
import type { Catalogue, Table } from '../../model/table.ts'
import { check, checkCondition } from './check.ts'

/** Two tables that refer to each other, made by hand. */
const people: Table = {
	id: 1,
	name: 'People',
	keepers: [],
	label: 1,
	columns: [
		{ id: 1, name: 'Name', type: 'text' },
		{ id: 2, name: 'Harbour', type: 'reference', to: 2 }
	],
	checks: [],
	backReferences: []
}
const harbours: Table = {
	id: 2,
	name: 'Harbours',
	keepers: [],
	label: 10,
	columns: [{ id: 10, name: 'Name', type: 'text' }],
	checks: [],
	backReferences: [{ name: 'moorings', table: 3, column: 21 }]
}
const moorings: Table = {
	id: 3,
	name: 'Moorings',
	keepers: [],
	label: 20,
	columns: [
		{ id: 20, name: 'Code', type: 'code' },
		{ id: 21, name: 'Harbour', type: 'reference', to: 2 },
		{ id: 22, name: 'Next due', type: 'date' },
		{ id: 23, name: 'Depth', type: 'decimal' },
		{ id: 24, name: 'Sunk', type: 'yes/no' },
		{ id: 25, name: 'terms and notes', type: 'text' },
		{ id: 26, name: 'terms', type: 'text' },
		{ id: 27, name: 'Arrears', type: 'money' }
	],
	checks: [],
	backReferences: []
}
const catalogue: Catalogue = {
	people,
	timeZone: 'UTC',
	writing: BRITISH,
	tables: new Map([people, harbours, moorings].map((table) => [table.id, table]))
}
const scope = { catalogue, rows: [moorings], me: true }

describe('what is right has the type that follows', () => {
	test.each([
		['a name with a space', 'Next due', 'date'],
		['names without regard to case', 'NEXT  due', 'date'],
		['a quoted name', `'terms and notes'`, 'text'],
		['a date and a number', 'Next due + 7', 'date'],
		['two dates', 'Next due - TODAY()', 'number'],
		['a reference followed', 'Harbour.Name', 'text'],
		['a reference followed to a set', 'COUNT(Harbour.moorings)', 'number'],
		['the person who looks', 'me.Harbour.Name', 'text'],
		['two references', 'Harbour = me.Harbour', 'yesno'],
		['a date against an ISO literal', 'Next due < "2026-11-23"', 'yesno'],
		['a number joined to text', 'Code & Depth', 'text'],
		['a reference joined to text, by its label', '"at " & Harbour', 'text'],
		['an outcome that may be missing', 'IF(Sunk; Depth)', 'number'],
		['a time added to a time', 'TIME(1; 0; 0) + TIME(2; 0; 0)', 'duration'],
		['a list', 'SUM({1; 2; 3})', 'number'],
		['the first row of a sorted set', 'FIRST(SORT(Harbour.moorings; Depth; TRUE))', 'row'],
		['a column of the first row', 'FIRST(SORT(Harbour.moorings; Depth)).Code', 'text'],
		['the greatest date of a set', 'MAX(Harbour.moorings.Next due)', 'date'],
		['totals with criteria', 'SUMIFS(Harbour.moorings.Arrears; Harbour.moorings.Depth; ">2")', 'number'],
		['outcomes of two kinds', 'IFERROR(Depth / 0; "none")', 'mixed'],
		['one of several', 'Code in ("A"; "B")', 'yesno'],
		['among a set', 'Depth in Harbour.moorings.Depth', 'yesno'],
		['a filter that compares with the outer row', 'COUNT(FILTER(Harbour.moorings; Depth > this.Depth))', 'number'],
		['the latest of a set of dates', 'MAX(Harbour.moorings.Next due)', 'date']
	])('%s: %s', (_what, formula, type) => {
		const { expr, issues } = check(formula, scope)
		expect(issues).toEqual([])
		expect(expr?.type.kind).toBe(type)
	})
})

describe('what is wrong is said in words, with its place and the remedy', () => {
	test.each([
		['Dept > 3', 'There is no column "Dept" in Moorings. Did you mean "Depth"?', 'Dept'],
		['Harbour.Nam', 'There is no column "Nam" in Harbours. Did you mean "Name"?', 'Nam'],
		['SUMM(1; 2)', 'There is no function "SUMM". Did you mean SUM?', 'SUMM'],
		['Depth + Code', '"+" needs a number, but this is a text.', 'Code'],
		['Harbour = "Ness Hythe"', 'Follow the reference with a dot, for instance to its Name.', 'Harbour = "Ness Hythe"'],
		['Depth = Code', 'This compares a number with a text.', 'Depth = Code'],
		['Harbour < Harbour', 'These have no order.', 'Harbour < Harbour'],
		['EDATE(Next due)', 'EDATE takes 2 parts, but here is 1.', 'EDATE(Next due)'],
		['terms and notes = "x"', '"terms and notes" is also the name of a column.', 'terms and notes'],
		['1,5 + 1', '"," was not expected here.', ','],
		['SUM(1; 2, 3)', 'Separate the parts of one call with ";" or with ",", not both.', ','],
		['"open', 'The closing " is missing.', '"open'],
		['Depth >', 'The formula stops too early: a value was expected here.', ''],
		['(Depth', 'A closing bracket ")" is missing here.', ''],
		['Depth § 3', '"§" has no meaning in a formula.', '§'],
		['this', 'After "this" comes a dot and a column: this.name.', 'this'],
		['Harbour.moorings', 'The result needs one value, but this is many rows of Moorings.', 'Harbour.moorings'],
		[
			'COUNT(Harbour.moorings.Code)',
			'COUNT needs numbers or rows (COUNTA counts everything that is not blank)',
			'Harbour.moorings.Code'
		],
		['FILTER(Depth; TRUE)', 'FILTER needs a set of rows, but this is a number.', 'Depth'],
		[
			'VLOOKUP(Code; 1; 2)',
			'VLOOKUP needs a grid of cells, which a table has not. Make the column a reference',
			'VLOOKUP'
		],
		[
			'SUMIF(Harbour.moorings.Depth; ">1"; me.Harbour.moorings.Arrears)',
			'must come from the same rows',
			'Harbour.moorings.Depth'
		],
		['{1; "a"; Harbour}', 'Both outcomes of a list must be of one kind.', '{1; "a"; Harbour}'],
		['Next due + TIME(1; 0; 0)', '"+" needs whole days beside a date, but this is a time.', 'TIME(1; 0; 0)'],
		['SORT(Harbour.moorings; Code; Sunk)', 'The third part of SORT needs TRUE (falling) or FALSE (rising)', 'Sunk'],
		['ROUND(Code)', 'The number of ROUND needs a number, but this is a text.', 'Code'],
		['IF(Code; 1; 2)', 'The test of IF needs something that is true or not, but this is a text.', 'Code']
	])('%s', (formula, message, place) => {
		const { expr, issues } = check(formula, scope)
		expect(expr).toBeUndefined()
		expect(issues[0]?.message).toContain(message)
		expect(formula.slice(issues[0]?.span.from, issues[0]?.span.to)).toBe(place)
	})

	test('me has no meaning where nobody looks', () => {
		expect(check('me.Name', { ...scope, me: false }).issues[0]?.message).toContain('nobody is looking')
	})

	test('a condition must be true or not', () => {
		expect(checkCondition('Code', scope).issues[0]?.message).toBe(
			'A condition needs something that is true or not, but this is a text.'
		)
	})

	test('nesting past what the stack bears is refused, not a crash', () => {
		const deep = `${'('.repeat(5000)}1${')'.repeat(5000)}`
		expect(check(deep, scope).issues[0]?.message).toContain('nested too deeply')
		expect(check(`${'-'.repeat(5000)}1`, scope).issues[0]?.message).toContain('nested too deeply')
	})
})

describe('operators group as the standard says (OpenFormula 5.5, from memory)', () => {
	test.each([
		['-2^2', '(-2)^2', '-(2^2)'],
		['2+3*4', '2+(3*4)', '(2+3)*4'],
		['1&2+3', '1&(2+3)', '(1&2)&3'],
		['not Depth > 3 and Sunk', '(not (Depth > 3)) and Sunk', 'not (Depth > 3 and Sunk)'],
		['Sunk or Sunk and Depth = 1', 'Sunk or (Sunk and Depth = 1)', '(Sunk or Sunk) and Depth = 1']
	])('%s is %s, not %s', (formula, same, other) => {
		const tree = (text: string) => JSON.stringify(check(text, scope).expr)
		expect(tree(formula)).toBe(tree(same))
		expect(tree(formula)).not.toBe(tree(other))
	})
})
