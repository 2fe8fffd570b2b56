/**
 * What nobody may do, whatever the lines say: leave a required column blank, repeat a unique value, change what a
 * sign-off has closed. A guard names itself, but never a row that the person cannot see.
 */
import { AppError } from '$lib/core/app-error.ts'
import { evaluate } from '$lib/core/formula/evaluate/evaluate.ts'
import type { Moment } from '$lib/core/formula/evaluate/fold.ts'
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import { allOf, param, raw, sql, type Sql } from '$lib/core/sql/sql.ts'
import { ownColumns, someNode } from '$lib/core/formula/syntax/walk.ts'
import { comparedPlace, hasKey, isStored } from '$lib/core/table/storage.ts'
import { getColumn, type Column, type Table } from '$lib/core/model/table.ts'
import { textKey } from '$lib/core/text/key.ts'
import { rememberSettled } from '../store/turns.ts'
import type { Store } from '../store/store.ts'
import { storeEnv, type StoredRow } from '../store/stored-row.ts'

export interface Guarded {
	readonly table: Table
	readonly rights: Rights
	readonly before: StoredRow | undefined
	readonly after: StoredRow
	readonly moment: Moment
}

export function checkGuards(store: Store, guarded: Guarded): void {
	const { table, before, after } = guarded
	for (const column of table.columns) {
		const value = after.stored.get(column.id) ?? null
		if (before && isSame(before, after, [column.id, column.uniqueWithin])) continue
		if (value === null) checkRequired(column)
		else if (column.unique) checkUnique(store, column, guarded)
	}
	checkRules(store, guarded)
}

/**
 * The builder's own checks; one that is in error, or cannot say, lets the row through. So does one that reads a column
 * which is blank, since whether a column must be filled is another rule; unless the check asks for blanks itself.
 */
function checkRules(store: Store, { table, after, moment }: Guarded): void {
	for (const { expr, message } of table.checks) {
		const asksBlank = someNode(expr, (node) => node.kind === 'isblank')
		if (!asksBlank && [...ownColumns(expr)].some((id) => isBlank(after, table, id))) continue
		const value = evaluate(expr, { ...moment, ...storeEnv(store), rows: [after] })
		if (value === false || value === 0) throw new AppError('invalid', message)
	}
}

function isBlank({ stored }: StoredRow, table: Table, id: number): boolean {
	return isStored(getColumn(table, id)) && (stored.get(id) ?? null) === null
}

function checkRequired(column: Column): void {
	if (column.required) throw new AppError('invalid', `${column.name} must be filled in.`, { column: column.id })
}

function checkUnique(store: Store, column: Column, { table, rights, after }: Guarded): void {
	const value = after.stored.get(column.id) ?? null
	const key = hasKey(column) ? textKey(String(value)) : value
	const name = raw(`r.${comparedPlace(column)}`)
	const within = column.uniqueWithin === undefined ? [] : [sameWithin(getColumn(table, column.uniqueWithin), after)]
	const same = [sql`${name} = ${param(key)}`, sql`r.n <> ${param(after.n)}`, ...within]
	const [taken] = store.select(sql`SELECT 1 FROM t${table.id} AS r WHERE ${allOf(same)} LIMIT 1`)
	if (!taken) return
	const sight = [rights.rows(table), rights.cell(table, column)].map((each) =>
		compileCondition(each, newContext('r', rights.moment))
	)
	const [seen] = store.select(sql`SELECT 1 FROM t${table.id} AS r WHERE ${allOf([...same, ...sight])} LIMIT 1`)
	if (seen) throw new AppError('invalid', `${column.name}: another row has this value already.`, { column: column.id })
	throw new AppError('invalid', `${column.name}: This value cannot be used.`, { column: column.id, unseen: true })
}

function isSame(before: StoredRow, after: StoredRow, columns: readonly (number | undefined)[]): boolean {
	return columns.every((id) => id === undefined || before.stored.get(id) === after.stored.get(id))
}

function sameWithin(column: Column, { stored }: StoredRow): Sql {
	const value = stored.get(column.id) ?? null
	const key = hasKey(column) && value !== null ? textKey(String(value)) : value
	return sql`${raw(`r.${comparedPlace(column)}`)} IS ${param(key)}`
}

const CLOSED_ROW = `
	SELECT state FROM signoff_case
	WHERE table_id = ? AND row_n = ? AND state <> 'withdrawn'
	ORDER BY id DESC LIMIT 1`
/** Cases of rows that this row belongs to, by a reference that the sign-off closes as well. */
const CLOSED_PARENT = `
	SELECT s.state
	FROM signoff_case AS s, json_each(s.signoff, '$.children') AS child
	WHERE s.table_id = ? AND s.row_n = ? AND s.state <> 'withdrawn' AND child.value ->> 'column' = ?
	LIMIT 1`

/** Refuses when the row, or the row it belongs to, waits on a decision or was decided. */
export function checkNotClosed(store: Store, table: Table, { n, stored }: StoredRow): void {
	const decided = tablesDecidedOn(store)
	const own = decided.has(table.id) ? store.pluck<string>(CLOSED_ROW, table.id, n) : undefined
	if (own) throw closed(own, 'this row')
	for (const column of table.columns) {
		if (column.type !== 'reference' || !decided.has(column.to ?? 0)) continue
		const row = stored.get(column.id)
		if (typeof row !== 'number') continue
		const parent = store.pluck<string>(CLOSED_PARENT, column.to, row, column.id)
		if (parent) throw closed(parent, 'the row it belongs to')
	}
}

const DECIDED_ON = `SELECT DISTINCT table_id FROM signoff_case`

/** Tables of which a row ever went to somebody for a decision; of any other none is closed. */
const tablesDecidedOn = rememberSettled(
	'signoff_case',
	(store): ReadonlySet<unknown> => new Set(store.prepare(DECIDED_ON).pluck().all())
)

function closed(state: string, what: string): AppError {
	const why = state === 'waiting' ? 'is waiting on a decision' : `has been ${state}`
	return new AppError('invalid', `Closed to changes: ${what} ${why}.`)
}
