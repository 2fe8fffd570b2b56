/** From where to where the numbers of some columns go, of rows and cells that the reader sees: one look at the rows for all of them. */
import { newContext } from '../formula/sql/sql-context.ts'
import type { Column } from '../model/table.ts'
import { allOf, joinSql, sql, type Sql } from '../sql/sql.ts'
import { toldApart } from './groups.ts'
import { conditionsOf, rowsOf, TICK, type PageRequest, type Plans } from './request.ts'

/** One row with the least and the most of each; undefined where the reader sees nothing of one, or it holds no numbers. */
export function planSpread(
	request: Pick<PageRequest, 'table' | 'where' | 'among'>,
	columns: readonly Column[],
	plans: Plans
): Sql | undefined {
	const ctx = newContext('r', plans.rights.moment, plans.rights)
	const told = columns.map((column) => toldApart(request.table, column, { ...plans, ctx }))
	const ends = told.flatMap((each) => {
		if (each?.as !== 'numbers') return []
		const seen = each.isOpen ? each.key : sql`CASE WHEN ${each.seen} THEN ${each.key} END`
		return [sql`min(${seen}), max(${seen})`]
	})
	if (ends.length < columns.length) return undefined
	const { visibility, rest } = conditionsOf({ ...request, columns: [] }, plans.rights, ctx)
	return sql`SELECT ${joinSql(ends, ', ')} FROM ${rowsOf(request)} WHERE ${allOf([TICK, ...visibility, ...rest])}`
}
