/** Works formulas out on one row in the database: as the data is, or as somebody may see it. */
import type { Rights } from '$lib/core/access/rights.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { compileCondition, compileError, compileValue } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { fold, type Moment } from '$lib/core/formula/evaluate/fold.ts'
import type { Expr, ErrorValueCode, Value } from '$lib/core/model/formula.ts'
import { allOf, param, raw, sql } from '$lib/core/sql/sql.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'

export interface OnRow {
	readonly table: Table
	readonly n: number
	readonly moment: Moment
	/** Whose sight the value is read with; the data as it is, if left out. */
	readonly rights?: Rights
}

/** The value of a formula on a row; blank where the reader may not see the row. */
export function workOut(store: Store, expr: Expr, { table, n, moment, rights }: OnRow): Value {
	const ctx = newContext('r', moment, rights)
	const folded = fold(expr, moment)
	const conditions = [sql`r.n = ${param(n)}`]
	if (rights) conditions.push(compileCondition(rights.rows(table), newContext('r', moment)))
	const error = compileError(folded, ctx) ?? raw('NULL')
	const [row] = store.select(
		sql`SELECT ${compileValue(folded, ctx)}, ${error} FROM t${table.id} AS r WHERE ${allOf(conditions)}`
	)
	if (!row) return null
	// The second column is the code of an error, or nothing.
	if (typeof row[1] === 'number') return { errorCode: row[1] as ErrorValueCode }
	// A compiled formula gives values of its type.
	return expr.type.kind === 'yesno' && row[0] !== null ? row[0] === 1 : (row[0] as Value)
}

/** The number of the person that a formula names: a reference to a person, or an address. Undefined if it names nobody. */
export function findPerson(store: Store, formula: string, on: OnRow): number | undefined {
	const { catalogue } = store.workspace()
	const { expr } = check(formula, { catalogue, rows: [on.table], me: on.moment.me !== undefined })
	if (!expr) return undefined
	const value = workOut(store, expr, on)
	if (expr.type.kind === 'row' && expr.type.table.id === catalogue.people.id)
		return typeof value === 'number' ? value : undefined
	if (typeof value !== 'string') return undefined
	const email = catalogue.people.columns.find((column) => column.type === 'email')
	if (!email) return undefined
	const find = `SELECT n FROM t${catalogue.people.id} WHERE c${email.id}k = text_key(?)`
	return store.prepare<number>(find).pluck().get(value)
}
