/** Conditions that say the same of every row, whatever stands in it. */
import type { Expr } from '../../model/formula.ts'

/** Whether a condition is the constant no: then nothing need be asked. */
export function isNever(expr: Expr): boolean {
	return expr.kind === 'literal' && expr.value !== true && expr.value !== 1
}

/** Whether a condition is the constant yes: then nothing need be asked. */
export function isAlways(expr: Expr): boolean {
	return expr.kind === 'literal' && !isNever(expr)
}
