/** Works formulas out on one row in the database: as the data is, or as somebody may see it. */
import type { Rights } from '$lib/core/access/rights.ts'
import type { GivenRow, Here } from '$lib/core/formula/check/check-call.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { columnType } from '$lib/core/formula/check/column-type.ts'
import { compileCondition, compileError, compileValue } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { fold, type Moment } from '$lib/core/formula/evaluate/fold.ts'
import type { Expr, ErrorValueCode, Value } from '$lib/core/model/formula.ts'
import { allOf, joinSql, param, raw, sql, type Sql } from '$lib/core/sql/sql.ts'
import type { Table } from '$lib/core/model/table.ts'
import { readFromBin } from '../rows/bin.ts'
import type { Store } from '../store/store.ts'

export interface RowAt {
	readonly table: Table
	readonly n: number
	/** Whether it lies in the bin, from where it is read as it stood. */
	readonly isRemoved?: boolean
}

export interface Sight {
	readonly moment: Moment
	/** Whose sight values are read with; the data as it is, if left out. */
	readonly rights?: Rights
}

/** The row may be left out: a formula by the clock stands on none. */
export type OnRow = Partial<RowAt> & Sight

/** Both where they are known: whoever acts on nobody's behalf reads the data as it is. */
export function sightOf({ moment, rights }: { readonly moment: Moment; readonly rights: Rights | undefined }): Sight {
	return rights ? { moment, rights } : { moment }
}

/** The value of a formula; blank where the reader may not see the row that it stands on. */
export function workOut(store: Store, expr: Expr, { table, n, isRemoved, moment, rights }: OnRow): Value {
	const ctx = newContext('r', moment, rights)
	const folded = fold(expr, moment)
	const row = table && { table, n: n ?? 0, ...(isRemoved ? { isRemoved } : {}) }
	const from = row && sql` FROM ${rowsOf(store, row)} AS r WHERE ${allOf(conditionsOf(row, { moment, rights }))}`
	const error = compileError(folded, ctx) ?? raw('NULL')
	const [found] = store.select(sql`SELECT ${compileValue(folded, ctx)}, ${error}${from ?? raw('')}`)
	if (!found) return null
	// The second column is the code of an error, or nothing.
	if (typeof found[1] === 'number') return { errorCode: found[1] as ErrorValueCode }
	// A compiled formula gives values of its type.
	return expr.type.kind === 'yesno' && found[0] !== null ? found[0] === 1 : (found[0] as Value)
}

/** Where a row is read from: its table, or the one row in the bin as it stood. */
function rowsOf(store: Store, { table, n, isRemoved }: RowAt): Sql {
	const lies = isRemoved ? readFromBin(store, table, n) : undefined
	if (!lies) return sql`t${table.id}`
	return sql`(SELECT ${joinSql(
		Object.entries(lies).map(([name, value]) => sql`${param(value)} AS ${raw(name)}`),
		', '
	)})`
}

function conditionsOf({ table, n }: RowAt, { moment, rights }: { moment: Moment; rights: Rights | undefined }): Sql[] {
	const own = sql`r.n = ${param(n)}`
	return rights ? [own, compileCondition(rights.rows(table), newContext('r', moment))] : [own]
}

/** The row around the one at hand, as formulas reach it by `this`: its values, as somebody may see them. */
export function givenOf(
	store: Store,
	{ table, n, isRemoved }: RowAt,
	sight: { readonly moment: Moment; readonly rights: Rights | undefined }
): GivenRow {
	const { catalogue } = store.workspace()
	const on = { table, n, ...(isRemoved ? { isRemoved } : {}), ...sightOf(sight) }
	const of: Expr = { kind: 'this', level: 0, type: { kind: 'row', table } }
	return {
		table,
		row: () => (workOut(store, of, on) === null ? null : n),
		value: (column) => {
			const expr: Expr = { kind: 'field', of, table, column, type: columnType(catalogue, column) }
			return workOut(store, expr, on)
		}
	}
}

/** The number of the person that a formula names: a reference to a person, or an address. Undefined if it names nobody. */
export function findPerson(
	store: Store,
	formula: string,
	{ given, here, ...on }: OnRow & { readonly given?: GivenRow; readonly here?: Here }
): number | undefined {
	const { catalogue } = store.workspace()
	const rows = on.table ? [on.table] : []
	const { expr } = check(formula, { catalogue, rows, me: on.moment.me !== undefined, given, here })
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
