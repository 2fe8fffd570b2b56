/**
 * Types from what stands in a column: values outrank its name, a word in a name counts only whole, and nothing is made up.
 * Judgements of ours, from registers as offices keep them.
 */
import { describe, expect, test } from 'vitest'
import { findKind } from '../table/kinds/all.ts'
import type { Doubt } from './guess.ts'
import { inferColumn } from './infer.ts'

const cases: [why: string, name: string, values: string[], type: string][] = [
	['"Released" is no release', 'Released', ['2026-01-05', '2026-02-07', '2026-03-09'], 'date'],
	['"Released" is no release', 'Released', ['yes', 'no', 'yes'], 'yes/no'],
	['a balance is an amount', 'Account balance', ['1204.50', '88.20', '-3.10'], 'money'],
	['an account number is a name', 'Account', ['40118822', '40118823', '40119001'], 'text'],
	['an account number is a name', 'Account no.', ['40118822', '40118823', '40119001'], 'text'],
	['"Discard" is no card', 'Discard qty', ['12', '40', '7'], 'whole number'],
	['"Updated" is no date', 'Updated by', ['20240101', '20240102', '20240103'], 'whole number'],
	['"Sunday" is no day of a date', 'Sunday rota', ['20240101', '20240199', '20249903'], 'whole number'],
	['"Spectrum" is no phone', 'Spectrum', ['433', '868', '915'], 'whole number'],
	['"Hotel" is no telephone', 'Hotel', ['12', '14', '15'], 'whole number'],
	['"Prototype" is no type', 'Prototype', ['Tern', 'Skua', 'Tern', 'Heron'], 'text'],
	['both of one pair', 'Checked', ['T', 'F', 'T', 'T'], 'yes/no'],
	['both of one pair', 'Sealed', ['y', 'n', 'y'], 'yes/no'],
	['both of one pair', 'Dicht', ['ja', 'nein', 'ja'], 'yes/no'],
	['two letters that are no pair', 'Axis', ['x', 'y', 'x', 'y', 'x', 'y', 'x', 'y'], 'choice'],
	['answers of two pairs', 'Said', ['yes', 'false', 'yes', 'false', 'yes', 'false', 'yes', 'false'], 'choice'],
	['one letter alone', 'Grade', ['T', 'T', 'T'], 'text'],
	['a mark where the name asks', 'Done', ['x', 'x', 'x'], 'yes/no'],
	['noughts and ones are counts', 'Findings', ['0', '1', '1', '0'], 'whole number'],
	['one semicolon is a sentence', 'Remark', ['Worn; replace', 'Sound', 'Sound', 'Worn', 'Sound', 'Worn'], 'text'],
	[
		'lists have them again and again',
		'Needs',
		['Chain; Shackle', 'Chain', 'Shackle; Chain', 'Chain; Shackle'],
		'several choices'
	],
	['dialled digits are no amount', 'Call', ['+44 20 7946 0958', '+44 20 7946 0111', '+44 161 496 0999'], 'text'],
	['dialled digits are no amount', 'Ring', ['(020) 7946-0958', '(020) 7946-0111', '(0161) 496-0999'], 'text'],
	['a column of phones', 'Phone', ['7946 0958', '7946 0111', '496 0999'], 'phone'],
	['a column of phones', 'Mobile number', ['07946095800', '07946095811', '07946095822'], 'phone'],
	['two numbers in a cell', 'Readings', ['100 200', '300 400', '120 180'], 'text'],
	['two numbers in a cell', 'Pair', ['3 4', '5 12', '8 15'], 'text'],
	['thousands set apart', 'Population', ['1 234 567', '89 000', '12 500'], 'whole number'],
	['a price with its sign', 'Price', ['£3.50', '£12.00', '£0.99'], 'money'],
	['a heading with a code', 'Paid EUR', ['3.50', '12.00', '0.99'], 'money'],
	['digits past 2^53', 'Id', ['9007199254740993', '9007199254740995'], 'text'],
	['half past two, in words of the clock', 'Opens', ['2:30 pm', '9 am', '11:15 a.m.'], 'time'],
	['instants with an offset', 'Sent', ['2026-04-03T14:30:05+0200', '2026-04-03T14:31:00+0200'], 'date and time']
]

test.each(cases)('%s: %s %j', (_why, name, values, type) => {
	expect(inferColumn(name, values, 2).type).toBe(type)
})

test('what is taken for a type is read by its reader, every value of it', () => {
	for (const [, name, values] of cases) {
		const { type, doubts, choices, writing, places } = inferColumn(name, values, 2)
		const doubted = doubts.flatMap((doubt) => ('text' in doubt ? [doubt.text] : []))
		const kind = findKind(type)
		if (!kind) throw new Error(`Expected a kind for "${type}"`)
		const column = { id: 1, name, type, ...(choices ? { choices } : {}), ...(places === undefined ? {} : { places }) }
		for (const text of values)
			expect([name, text, doubted.includes(text) || kind.read(text, column, writing).ok]).toEqual([name, text, true])
	}
})

describe('no money is made up', () => {
	const money = (name: string, values: string[]) => {
		const { type, unit, doubts } = inferColumn(name, values, 2)
		return [type, unit, doubts.map((doubt) => doubt.kind)]
	}

	test.each([
		['Arrears', ['3.50', '12.00'], undefined, ['currency']],
		['Arrears (£)', ['3.50', '12.00'], '£', []],
		['Arrears £', ['3.50', '12.00'], '£', []],
		['Fee (NOK)', ['350', '1200'], 'NOK', []],
		['Salary', ['€3,500.00', '€1,200.00'], '€', []],
		['Salary', ['CHF 3500.00', 'CHF 1200.00'], 'CHF', []]
	])('%s %j', (name, values, unit, doubts) => {
		expect(money(name, values)).toEqual(['money', unit, doubts])
	})

	test('amounts of two kinds of money are no column of money', () => {
		expect(money('Paid', ['£3.50', '€12.00'])[0]).toBe('text')
	})
})

describe('day or month is asked where nothing says which, or the file says both', () => {
	const asked = (values: string[]): Doubt['kind'][] => inferColumn('Seen', values, 2).doubts.map((doubt) => doubt.kind)

	test.each([
		['one order is proved', ['03/04/2026', '25/04/2026'], []],
		['the other is', ['03/04/2026', '04/25/2026'], []],
		['neither is', ['03/04/2026', '05/06/2026'], ['day or month']],
		['year first', ['2026-04-03', '2026-04-25'], []]
	])('%s', (_what, values, want) => {
		expect(asked(values)).toEqual(want)
	})

	test('both are', () => {
		const many = [...Array.from({ length: 60 }, () => '03/04/2026'), '25/04/2026', '04/25/2026']
		expect(asked(many)).toContain('day or month')
	})

	test('what is proved is how the rest is read', () => {
		expect(inferColumn('Seen', ['03/04/2026', '04/25/2026'], 2).writing.dates).toBe('month first')
		expect(inferColumn('Seen', ['03/04/2026', '25/04/2026'], 2).writing.dates).toBe('day first')
	})
})
