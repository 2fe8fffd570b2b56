/** Conditions of a routine, as whoever it acts as sees the rows: of the row at hand, and of the rows of a table. */
import { AppError } from '$lib/core/app-error.ts'
import type { Scope } from '$lib/core/formula/check/check-call.ts'
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { isTrue } from '$lib/core/formula/evaluate/evaluate.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { Sql } from '$lib/core/sql/sql.ts'
import type { StepNow } from './step-now.ts'
import { givenOf, sightOf, workOut } from './work-out.ts'

/** Of the row at hand; of none nothing holds. */
export function holds(where: string, now: StepNow): boolean {
	const { store, at, acting } = now
	if (!at) return false
	const expr = conditionOf(where, scopeOf(now))
	return isTrue(workOut(store, expr, { ...at, ...sightOf(acting) }))
}

/** What holds of the rows of a table that whoever acts sees and that fit a condition, the row at hand around them. */
export function conditionsOn(table: Table, where: string, now: StepNow): Sql[] {
	const { rights, moment } = now.acting
	const seen = rights ? [compileCondition(rights.rows(table), newContext('r', moment))] : []
	if (where.trim() === '') return seen
	const scope = scopeOf({ ...now, at: { table, n: 0 }, outer: now.at })
	return [...seen, compileCondition(fold(conditionOf(where, scope), moment), newContext('r', moment, rights))]
}

/** Formulas stand on the row at hand, and reach the one around it as `this`, as whoever acts may see it. */
export function scopeOf({ store, at, outer, acting, held: { here } }: StepNow): Scope {
	const scope = { catalogue: store.workspace().catalogue, rows: at ? [at.table] : [], me: true, here }
	return outer ? { ...scope, given: givenOf(store, outer, acting) } : scope
}

function conditionOf(where: string, scope: Scope): Expr {
	const { expr, issues } = checkCondition(where, scope)
	if (!expr)
		throw new AppError('invalid', `"${where}" cannot be read any more: ${issues[0]?.message ?? 'it is damaged.'}`)
	return expr
}
