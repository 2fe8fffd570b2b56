/**
 * Replaces everything that is the same for every row by its value: `me.harbour`, `TODAY()`, `DATE(2026; 1; 1) + 7`.
 *
 * Folded before compiling, so that the database compares a column with a constant and an index can serve it.
 */
import { isStored } from '../../table/storage.ts'
import { evaluate, type Env } from './evaluate.ts'
import type { Expr } from '../../model/formula.ts'
import { mapParts, someNode } from '../syntax/walk.ts'

/** What does not change during one request: who looks, and when. */
export type Moment = Pick<Env, 'today' | 'now' | 'me'>

/** The same formula with everything worked out that no row decides: today, who looks, constants. */
export function fold(expr: Expr, moment: Moment): Expr {
	if (expr.kind === 'literal') return expr
	// A list has no value of its own; what takes it is folded.
	if (expr.kind !== 'list' && isConstant(expr))
		return { kind: 'literal', value: evaluate(expr, { ...moment, rows: [], ...NO_ROWS }), type: expr.type }
	return mapParts(withVirtualFolded(expr, moment), (part) => fold(part, moment))
}

/**
 * A virtual column is read where it stands, maybe beside one that was folded for somebody else (who looks as another person is
 * held to both their lines), so it must take its own moment with it.
 */
function withVirtualFolded(expr: Expr, moment: Moment): Expr {
	if ((expr.kind !== 'field' && expr.kind !== 'me') || !expr.column?.computed || isStored(expr.column)) return expr
	const { computed } = expr.column
	const column = { ...expr.column, computed: { ...computed, expr: fold(computed.expr, moment) } }
	return expr.kind === 'me' ? { ...expr, column, row: moment.me?.n ?? null } : { ...expr, column }
}

const NO_ROWS = { findRow: () => undefined, childrenOf: () => [] }

function isConstant(expr: Expr): boolean {
	return !someNode(expr, (node) => {
		if (node.kind === 'me') return node.column !== undefined && !isStored(node.column)
		if (node.kind === 'field' || node.kind === 'children' || node.kind === 'this') return true
		return node.kind === 'granted'
	})
}
