/**
 * Replaces everything that is the same for every row by its value: `me.harbour`, `TODAY()`, `DATE(2026; 1; 1) + 7`.
 *
 * Folded before compiling, so that the database compares a column with a constant and an index can serve it.
 */
import { isStored } from '../table/storage.ts'
import { evaluate, type Env } from './evaluate.ts'
import type { Expr } from './types.ts'
import { partsOf, someNode } from './walk.ts'

/** What does not change during one request: who looks, and when. */
export type Moment = Pick<Env, 'today' | 'now' | 'me'>

export function fold(expr: Expr, moment: Moment): Expr {
	if (expr.kind === 'literal') return expr
	// A list has no value of its own; what takes it is folded.
	if (expr.kind !== 'list' && isConstant(expr))
		return { kind: 'literal', value: evaluate(expr, { ...moment, rows: [], ...NO_ROWS }), type: expr.type }
	return mapParts(expr, (part) => fold(part, moment))
}

const NO_ROWS = { findRow: () => undefined, childrenOf: () => [] }

function isConstant(expr: Expr): boolean {
	return !someNode(expr, (node) => {
		if (node.kind === 'me') return !isStored(node.column)
		if (node.kind === 'field' || node.kind === 'children' || node.kind === 'this') return true
		return node.kind === 'granted'
	})
}

function mapParts(expr: Expr, map: (part: Expr) => Expr): Expr {
	if (partsOf(expr).length === 0) return expr
	switch (expr.kind) {
		case 'field':
		case 'children':
			return { ...expr, of: map(expr.of) }
		case 'filter':
			return { ...expr, rows: map(expr.rows), where: map(expr.where) }
		case 'each':
			return { ...expr, rows: map(expr.rows), item: map(expr.item) }
		case 'sort':
			return { ...expr, rows: map(expr.rows), key: map(expr.key) }
		case 'first':
			return { ...expr, set: map(expr.set) }
		case 'list':
			return { ...expr, items: expr.items.map(map) }
		case 'aggregate':
		case 'and':
		case 'or':
		case 'call':
			return { ...expr, args: expr.args.map(map) }
		case 'negate':
		case 'totext':
		case 'not':
		case 'isblank':
		case 'iserror':
		case 'istype':
		case 'errortype':
			return { ...expr, arg: map(expr.arg) }
		case 'arithmetic':
		case 'join':
		case 'compare':
			return { ...expr, left: map(expr.left), right: map(expr.right) }
		case 'in':
			return { ...expr, item: map(expr.item), list: expr.list.map(map) }
		case 'if':
			return { ...expr, test: map(expr.test), then: map(expr.then), else: map(expr.else) }
		case 'iferror':
			return { ...expr, arg: map(expr.arg), else: map(expr.else) }
		default:
			return expr
	}
}
