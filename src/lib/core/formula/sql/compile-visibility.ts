/** What of a table its reader sees, as conditions inside a query: the door out for rows that a formula reaches. */
import type { Sql } from '../../sql/sql.ts'
import type { Column, Table } from '../../model/table.ts'
import { conditionOf } from './compile-conditions.ts'
import { TRUE, type Context } from './sql-context.ts'

/** Where the reader sees a row; nothing where they see all of the table. */
export function visibilityOf(table: Table, alias: string, ctx: Context): Sql[] {
	if (!ctx.visibility) return []
	const seen = conditionOf(ctx.visibility.rows(table), { ...ctx, aliases: [alias], visibility: undefined })
	return seen === TRUE ? [] : [seen]
}

/** Where the reader sees a cell; undefined where every row that is seen shows it. */
export function maskOf(table: Table, column: Column, alias: string, ctx: Context): Sql | undefined {
	if (!ctx.visibility || ctx.own?.has(alias)) return undefined
	const mask = conditionOf(ctx.visibility.cell(table, column), { ...ctx, aliases: [alias], visibility: undefined })
	return mask === TRUE ? undefined : mask
}
