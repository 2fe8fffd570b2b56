/**
 * How many rows a formula may have to look at for one row that it stands on: sets within sets multiply. An upper estimate from
 * how many rows point to one row at most, for saying so before it is saved; what a condition leaves out early is not known.
 */
import { isStored } from '../../table/storage.ts'
import type { Column, BackReference } from '../../model/table.ts'
import type { Expr } from '../../model/formula.ts'
import { partsOf } from '../syntax/walk.ts'

/** How many rows point to one row by a reference, at most. */
export type MostChildren = (backReference: BackReference) => number

/** More for each row than anybody waits for: a page of fifty would look at fifty million (some five seconds). */
export const MOST_LOOKED_AT = 1_000_000
/** From here on it is worth a word. */
export const MANY_LOOKED_AT = 5_000

/** `most`: of kept totals nothing is looked at, they lie in the row. */
export function rowsLookedAt(expr: Expr, most: MostChildren): number {
	return costOf(expr, { most, open: new Set() })
}

interface Counting {
	readonly most: MostChildren
	/** Computed columns that are being counted, so that a circle ends. */
	readonly open: ReadonlySet<Column>
}

function costOf(expr: Expr, counting: Counting): number {
	if (expr.kind === 'aggregate' && expr.rollup) return 0
	if (expr.kind === 'aggregate' || expr.kind === 'first') {
		const sets = expr.kind === 'first' ? [expr.set] : expr.args
		return sum(sets.map((set) => costOfSet(set, counting)))
	}
	if (isSet(expr)) return costOfSet(expr, counting)
	const column = expr.kind === 'field' || expr.kind === 'me' ? expr.column : undefined
	const virtualColumn =
		column?.computed && !isStored(column) && !counting.open.has(column) ? column.computed.expr : undefined
	const inside =
		virtualColumn && column ? costOf(virtualColumn, { ...counting, open: new Set([...counting.open, column]) }) : 0
	return inside + sum(partsOf(expr).map((part) => costOf(part, counting)))
}

/** All rows of the set are looked at, and with each what is asked of it. */
function costOfSet(set: Expr, counting: Counting): number {
	const { rows, asked } = unfold(set)
	if (rows.kind !== 'children') return costOf(rows, counting) + sum(asked.map((each) => costOf(each, counting)))
	const each = 1 + sum(asked.map((part) => costOf(part, counting)))
	return costOf(rows.of, counting) + counting.most(rows.backReference) * each
}

/** The rows that a set begins with, and what is asked of each of them. */
function unfold(set: Expr): { rows: Expr; asked: Expr[] } {
	switch (set.kind) {
		case 'each': {
			const { rows, asked } = unfold(set.rows)
			return { rows, asked: [...asked, set.item] }
		}
		case 'filter': {
			const { rows, asked } = unfold(set.rows)
			return { rows, asked: [...asked, set.where] }
		}
		case 'sort': {
			const { rows, asked } = unfold(set.rows)
			return { rows, asked: [...asked, set.key] }
		}
		default:
			return { rows: set, asked: [] }
	}
}

function isSet(expr: Expr): boolean {
	return ['children', 'filter', 'sort', 'each'].includes(expr.kind)
}

function sum(numbers: readonly number[]): number {
	return numbers.reduce((total, each) => total + each, 0)
}
