/**
 * Turns a typed formula into SQL over the store's tables.
 *
 * - Values travel as `?` parameters, never as text; names are made from numbers.
 * - Every node agrees with `evaluate.ts` on every input: `tests/unit/formula-two-lives.test.ts`.
 * - A blank is NULL. Whether a value is an error is a second expression, emitted only where a part can fail.
 * - With a visibility, what the reader may not see is left out: related rows by their rows' condition, cells by their mask.
 *
 * Does not fold constants; that is `fold.ts`, and comparing with `me` needs it done before. The work is in four files, whose
 * functions call one another at every node: `compile-values`, `compile-conditions`, `compile-sets`, `compile-faults`.
 */
import type { Sql } from '../../sql/sql.ts'
import { conditionOf } from './compile-conditions.ts'
import { errorOf } from './compile-errors.ts'
import { valueOf } from './compile-values.ts'
import type { Context } from './sql-context.ts'
import type { Expr } from '../../model/formula.ts'

export class FormulaTooLong extends Error {
	override readonly name = 'FormulaTooLong'
}

/** Longer SQL takes seconds to prepare (50 s at depth 24 when virtual columns are inlined without a bound). */
const MAX_LENGTH = 120_000

/** The value of a formula; NULL where it is blank or in error. Yes/no as 1 and 0. */
export function compileValue(expr: Expr, ctx: Context): Sql {
	return bounded(valueOf(expr, ctx))
}

/** The number of the error of a formula, or undefined if it can have none. */
export function compileError(expr: Expr, ctx: Context): Sql | undefined {
	const error = errorOf(expr, ctx)
	return error && bounded(error)
}

/** A condition that is true exactly where the formula is: never for a blank or an error. */
export function compileCondition(expr: Expr, ctx: Context): Sql {
	return bounded(conditionOf(expr, ctx))
}

function bounded(compiled: Sql): Sql {
	if (compiled.text.length > MAX_LENGTH)
		throw new FormulaTooLong(`Cannot compile formula: ${compiled.text.length} characters`)
	return compiled
}
