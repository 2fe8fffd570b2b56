/** Conditions that say the same of every row, whatever stands in it. */
import type { Expr } from '../../model/formula.ts'

export function isNever(expr: Expr): boolean {
	return expr.kind === 'literal' && expr.value !== true && expr.value !== 1
}

export function isAlways(expr: Expr): boolean {
	return expr.kind === 'literal' && !isNever(expr)
}
