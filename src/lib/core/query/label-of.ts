/** What of a reference its reader sees: whether it is kept back, and what the row is called that it points to. */
import type { Rights } from '../access/rights.ts'
import { compileCondition } from '../formula/sql/compile.ts'
import type { Context } from '../formula/sql/sql-context.ts'
import { isAlways } from '../formula/syntax/constant.ts'
import { getColumn, type Column, type Table } from '../model/table.ts'
import { allOf, raw, sql, type Sql } from '../sql/sql.ts'

interface Reading {
	readonly rights: Rights
	readonly ctx: Context
}

/** Where the reader sees what stands in a column: the cell, and of a reference the row that it points to. */
export function cellSeen(table: Table, { column, target }: SeenCell, { rights, ctx }: Reading): Sql[] {
	const mask = rights.cell(table, column)
	const seen = isAlways(mask) ? [] : [compileCondition(mask, { ...ctx, visibility: undefined })]
	if (!target) return seen
	const points = raw(`r.c${column.id}`)
	return [...seen, sql`(${points} IS NULL OR ${labelOf(column, target, { rights, ctx }, () => raw('1'))} = 1)`]
}

export interface SeenCell {
	readonly column: Column
	/** The table that a reference points into. */
	readonly target: Table | undefined
}

/** Nothing where the row is not seen, or its name is not. */
export function labelOf(column: Column, target: Table, { rights, ctx }: Reading, read: (alias: string) => Sql): Sql {
	const alias = ctx.newAlias()
	const inner: Context = { ...ctx, aliases: [alias], visibility: undefined }
	const label = getColumn(target, target.label)
	const conditions = [sql`${raw(alias)}.n = r.c${column.id}`]
	for (const needed of [rights.rows(target), rights.cell(target, label)]) {
		if (!isAlways(needed)) conditions.push(compileCondition(needed, inner))
	}
	return sql`(SELECT ${read(alias)} FROM t${target.id} AS ${raw(alias)} WHERE ${allOf(conditions)})`
}
