/** What is asked of a table's rows, and which rows that leaves: those that the reader sees and that fit. */
import { isAlways } from '../formula/syntax/constant.ts'
import type { Rights } from '../access/rights.ts'
import { compileCondition } from '../formula/sql/compile.ts'
import type { Context } from '../formula/sql/sql-context.ts'
import type { Expr } from '../model/formula.ts'
import type { Catalogue, Column, Table } from '../model/table.ts'
import { cellSeen, type SeenCell } from './label-of.ts'
import { param, raw, sql, type Sql, type SqlValue } from '../sql/sql.ts'

export interface PageRequest {
	readonly table: Table
	readonly columns: readonly Column[]
	/** Conditions as the reader sees the data: filters, a screen's own condition. Folded. */
	readonly where: readonly Expr[]
	readonly sort?: SortKey | undefined
	/** Further columns that decide among rows whose first is the same; blank and unseen cells come last in them. */
	readonly then?: readonly SortKey[] | undefined
	readonly after?: Cursor | undefined
	readonly limit: number
	/** Only this row. */
	readonly row?: number | undefined
	/** Whether to say, for each row, what the reader may do with it. */
	readonly offers?: boolean
	/** Conditions that each row is told to fit or not, as the reader sees the data. Folded. */
	readonly flags?: readonly Expr[]
	/** Numbers of rows, as `n`, among which all that fit are: they are looked at, and no others. */
	readonly among?: Sql | undefined
	/** Only rows whose reference points to this row. */
	readonly pointing?: { readonly column: Column; readonly to: number } | undefined
	/** Only rows of which the reader sees these cells. */
	readonly seen?: readonly SeenCell[]
}

export interface SortKey {
	readonly column: Column
	readonly descending: boolean
}

/** The row that a page goes on from: its branch, its sorted values in the order of the keys, its number. */
export interface Cursor {
	readonly branch: number
	readonly values: readonly SqlValue[]
	readonly n: number
}

export interface Plans {
	readonly catalogue: Catalogue
	readonly rights: Rights
}

export interface Conditions {
	/** The rows that the reader sees. */
	readonly visibility: readonly Sql[]
	/** What else was asked. */
	readonly rest: readonly Sql[]
}

export function conditionsOf(request: Omit<PageRequest, 'limit'>, rights: Rights, ctx: Context): Conditions {
	const bare = { ...ctx, visibility: undefined }
	const rows = rights.rows(request.table)
	const visibility = isAlways(rows) ? [] : [compileCondition(rows, bare)]
	const asked = request.where.filter((where) => !isAlways(where)).map((where) => compileCondition(where, ctx))
	const rest = asked.length > 0 ? [TICK, ...asked] : []
	if (request.row !== undefined) rest.push(sql`r.n = ${param(request.row)}`)
	for (const cell of request.seen ?? []) rest.push(...cellSeen(request.table, cell, { rights, ctx }))
	if (request.pointing) {
		const { column, to } = request.pointing
		rest.push(sql`r.c${column.id} = ${param(to)}`)
		const mask = rights.cell(request.table, column)
		if (!isAlways(mask)) rest.push(compileCondition(mask, bare))
	}
	return { visibility, rest }
}

/** The rows that are looked at, as `r`. The join is crossed, so that the candidates come first whatever the database thinks. */
export function rowsOf({ table, among }: Pick<PageRequest, 'table' | 'among'>): Sql {
	return among ? sql`(${among}) AS among CROSS JOIN t${table.id} AS r ON r.n = among.n` : raw(`t${table.id} AS r`)
}

/**
 * Lets a long scan be ended from inside, every 8,192nd row: before what was asked, which a scan is for. It costs 16 ns a row
 * (as a CASE it cost 26), so what lines ask alone, by their indexes, goes without.
 */
export const TICK = raw('((r.n & 8191) OR tick())')
