/** From where to where the numbers of some columns go, of rows and cells that the reader sees: one look at the rows for all of them. */
import { newContext } from '../formula/sql/sql-context.ts'
import type { Column } from '../model/table.ts'
import { allOf, joinSql, raw, sql, type Sql } from '../sql/sql.ts'
import { toldApart } from './groups.ts'
import { addedLast } from './measure.ts'
import { conditionsOf, rowsOf, TICK, type PageRequest, type Plans } from './request.ts'

/** One row with the least and the most of each; undefined where the reader sees nothing of one, or it holds no numbers. */
export function planSpread(
	request: Pick<PageRequest, 'table' | 'where' | 'among'>,
	{ columns, most }: { readonly columns: readonly Column[]; readonly most?: number | undefined },
	plans: Plans
): Sql | undefined {
	const ctx = newContext('r', plans.rights.moment, plans.rights)
	const told = columns.map((column) => toldApart(request.table, column, { ...plans, ctx }))
	const cells = told.flatMap((each) => {
		if (each?.as !== 'numbers') return []
		return [each.isOpen ? each.key : sql`CASE WHEN ${each.seen} THEN ${each.key} END`]
	})
	if (cells.length < columns.length) return undefined
	const named = cells.map((cell, i) => sql`${cell} AS ${raw(`m${i}`)}`)
	const ends = raw(cells.map((_cell, i) => `min(m${i}), max(m${i})`).join(', '))
	const { visibility, rest } = conditionsOf({ ...request, columns: [] }, plans.rights, ctx)
	const from = sql`${rowsOf(request)} WHERE ${allOf([TICK, ...visibility, ...rest])}${addedLast(most)}`
	return sql`SELECT ${ends} FROM (SELECT ${joinSql(named, ', ')} FROM ${from})`
}
