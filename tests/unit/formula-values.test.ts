import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { FUNCTION_NOTES } from '$lib/core/formula/functions/table.ts'
import { checkFormulaRow, type FormulaRow } from '../check-values/formula.ts'

/** Values computed by two or more general-purpose reference libraries, with their clauses, in both lives of a formula. */
const tables = ['formula.json', 'formula-ours.json'].flatMap((file) => {
	const { rows } = JSON.parse(readFileSync(new URL(`../checks/${file}`, import.meta.url), 'utf8')) as {
		rows: FormulaRow[]
	}
	return rows
})
/** Deliberate differences, each with its reason; docs/FORMULAS.md says the same. */
const LEFT_OUT: Readonly<Record<string, string>> = {
	F116: 'Empty text is stored as blank, so COUNTA does not count it.',
	F431: 'DATEVALUE gives a date: there are no serial numbers here.'
}

describe('formula values', () => {
	test.each(tables.filter((row) => !(row.id in LEFT_OUT)).map((row) => [`${row.id} ${row.formula}`, row] as const))(
		'%s',
		(_name, row) => {
			expect(checkFormulaRow(row).short).toBeUndefined()
		}
	)
})

describe('what a function’s doc shows is what it gives', () => {
	const examples = FUNCTION_NOTES.flatMap((note) => note.examples.map(([formula, shows]) => ({ formula, shows })))
	test.each(examples.map((example) => [example.formula, example.shows] as const))('%s → %s', (formula, shows) => {
		const short = outcomesFor(shows).map((expected) => checkFormulaRow({ id: 'example', formula, expected }).short)
		expect(short).toContain(undefined)
	})

	/** A doc shows a number, yes or no, a date, or a text: the type is not written there. */
	function outcomesFor(shows: string): FormulaRow['expected'][] {
		if (shows === 'yes' || shows === 'no') return [shows === 'yes']
		if (/^\d{4}-\d\d-\d\d$/.test(shows)) return [{ date: shows }]
		return [shows, ...(Number.isFinite(Number(shows)) ? [Number(shows)] : [])]
	}
})

/** Clauses of OpenFormula (ODF 1.3, part 4) from memory. */
test.each([
	['N(3.5)', 3.5],
	['N(TRUE)', 1],
	['N(1 > 2)', 0],
	['N("12")', 0],
	['N(x)', 0],
	['CEILING(2.5; 0)', 0],
	['FLOOR(2.5; 0)', 0],
	['CEILING(0; 0)', 0]
])('%s → %s', (formula, expected) => {
	expect(checkFormulaRow({ id: 'ours', formula, names: { x: null }, expected } as FormulaRow).short).toBeUndefined()
})
