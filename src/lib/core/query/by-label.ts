/** Rows that are chosen by what they are known by, as people type it: the whole of it, or how it begins. */
import { NOTHING } from '../access/rights.ts'
import { FITS } from '../formula/functions/wildcards.ts'
import type { CompareOp, Expr } from '../model/formula.ts'
import { getColumn, type Catalogue, type Table } from '../model/table.ts'
import { shownField, textForm, toCondition } from './filter.ts'

/** The condition that the label is this text, read as its own type reads it. What cannot be read so is no row's label. */
export function labelIs(text: string, table: Table, catalogue: Catalogue): Expr {
	return toCondition({ column: table.label, is: 'equal', text }, table, catalogue) ?? NOTHING
}

/**
 * Conditions that the label begins so. Texts and whole numbers are looked for in ranges, which an index serves.
 *
 *     '12' over whole numbers → 12, or 120 to 129, or 1200 to 1299, …
 */
export function labelStarts(text: string, table: Table, catalogue: Catalogue): readonly Expr[] {
	const column = getColumn(table, table.label)
	const field = shownField(column, table, catalogue)
	if (column.type === 'whole number') return [anyRange(field, beginningWith(text.trim()))]
	const shown = textForm(field)
	if (!shown) return [NOTHING]
	if (shown !== field) return [fitsBeginning(shown, text.trim())]
	return [compare(field, '>=', text), compare(field, '<', `${text}\u{10ffff}`)]
}

/** Whole numbers that JavaScript and SQLite count exactly have up to so many digits. */
const MOST_DIGITS = 15

type Range = readonly [from: number, to: number]

function beginningWith(text: string): Range[] {
	if (!/^-?\d{1,15}$/.test(text)) return []
	const digits = text.replace('-', '')
	const count = Number(digits)
	const sizes = count === 0 ? [0] : Array.from({ length: MOST_DIGITS - digits.length + 1 }, (_size, i) => i)
	return sizes.map((size) => {
		const [low, high] = [count * 10 ** size, (count + 1) * 10 ** size - 1]
		return text.startsWith('-') ? [-high, -low] : [low, high]
	})
}

function anyRange(field: Expr, ranges: readonly Range[]): Expr {
	const within = ranges.map(([from, to]): Expr => ({
		kind: 'and',
		args: [compare(field, '>=', from), compare(field, '<=', to)],
		type: { kind: 'yesno' }
	}))
	return within.length === 0 ? NOTHING : { kind: 'or', args: within, type: { kind: 'yesno' } }
}

function compare(left: Expr, op: CompareOp, value: string | number): Expr {
	const right: Expr = { kind: 'literal', value, type: { kind: typeof value === 'number' ? 'number' : 'text' } }
	return { kind: 'compare', op, left, right, type: { kind: 'yesno' } }
}

function fitsBeginning(shown: Expr, text: string): Expr {
	const pattern: Expr = { kind: 'literal', value: `${text.replace(/[?*~]/g, '~$&')}*`, type: { kind: 'text' } }
	return { kind: 'call', fn: FITS, args: [shown, pattern], type: { kind: 'yesno' } }
}
