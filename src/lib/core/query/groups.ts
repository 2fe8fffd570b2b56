/**
 * What stands in a column, counted: by value, or for many numbers and dates by steps and periods. Only of rows that the
 * reader sees, and only where they see the cell: rows whose cell is kept back are one number, and references to rows that
 * are not seen are one group.
 *
 *     the kinds of moorings, for who sees their own harbour's
 *     → SELECT k, count(*), min(s) FROM (SELECT r.c31 AS k, r.c31 AS s, 1 AS seen FROM t3 AS r WHERE …) WHERE seen AND k IS NOT NULL GROUP BY k ORDER BY 2 DESC, 1 LIMIT ?
 */
import { inBands } from './bands.ts'
import { isAlways, isNever } from '../formula/syntax/constant.ts'
import { compileCondition } from '../formula/sql/compile.ts'
import { newContext, type Context } from '../formula/sql/sql-context.ts'
import { columnType } from '../formula/check/column-type.ts'
import { comparedPlace, hasKey } from '../table/storage.ts'
import { getColumn, getTable, type Column, type Table } from '../model/table.ts'
import { conditionsOf, rowsOf, TICK, type PageRequest, type Plans } from './request.ts'
import { labelOf } from './label-of.ts'
import { countsAnew, virtualValue } from './sorted-value.ts'
import { allOf, raw, sql, type Sql } from '../sql/sql.ts'

/** How a column's values are told apart, and what can be made of many. */
export type GroupedAs = 'words' | 'numbers' | 'dates' | 'references'

export interface GroupsPlan {
	readonly as: GroupedAs
	/** Rows in all, those whose cell is kept back, those where it is blank; the least, the most and the mean of numbers and dates. */
	readonly summary: Sql
	/** All numbers added up, and of how many rows the cell is kept back. */
	readonly sum: Sql
	/** The values with how many rows have each, the most frequent first: key, rows, one way in which it is written, label. */
	readonly values: (limit: number) => Sql
	/** How many rows lie in each step, by the number of the step. */
	readonly steps: (width: number) => Sql
	/** How many rows lie in each period, by the first letters of its dates: 4 for years, 7 for months. */
	readonly periods: (letters: number) => Sql
}

/** Undefined for columns whose values are not told apart: files, long texts, totals that are counted for each reader. */
export function planGroups(
	request: Pick<PageRequest, 'table' | 'where' | 'among'>,
	column: Column,
	plans: Plans
): GroupsPlan | undefined {
	const ctx = newContext('r', plans.rights.moment, plans.rights)
	const told = toldApart(request.table, column, { ...plans, ctx })
	if (!told) return undefined
	const { as, key, shown, seen } = told
	const { visibility, rest } = conditionsOf({ ...request, columns: [] }, plans.rights, ctx)
	const from = sql`(SELECT ${key} AS k, ${shown} AS s, ${seen} AS seen FROM ${rowsOf(request)} WHERE ${allOf([TICK, ...visibility, ...rest])})`
	const filled = raw('seen AND k IS NOT NULL')
	const reckons = as === 'numbers' || as === 'dates'
	const spread = reckons ? sql`min(CASE WHEN seen THEN k END), max(CASE WHEN seen THEN k END)` : sql`NULL, NULL`
	const mean = as === 'numbers' ? raw('avg(CASE WHEN seen THEN k END)') : raw('NULL')
	const sum = as === 'numbers' ? raw('total(CASE WHEN seen THEN k END), sum(NOT seen)') : raw('0, 0')
	return {
		as,
		summary: sql`SELECT count(*), sum(NOT seen), sum(seen AND k IS NULL), count(DISTINCT CASE WHEN seen THEN k END), ${spread}, ${mean} FROM ${from}`,
		sum: sql`SELECT ${sum} FROM ${from}`,
		values: (limit) =>
			sql`SELECT k, count(*), min(s) FROM ${from} WHERE ${filled} GROUP BY k ORDER BY 2 DESC, 1 LIMIT ${limit}`,
		steps: (width) =>
			sql`SELECT ${inBands(raw('k'), width)} AS step, count(*) FROM ${from} WHERE ${filled} GROUP BY step ORDER BY step`,
		periods: (letters) =>
			sql`SELECT substr(k, 1, ${letters}) AS period, count(*) FROM ${from} WHERE ${filled} GROUP BY period ORDER BY period`
	}
}

/** How the rows of a table are told apart by a column. */
export interface ToldApart {
	readonly as: GroupedAs
	/** What is the same for rows of one group, and how that is written. */
	readonly key: Sql
	readonly shown: Sql
	/** 1 where the reader sees the cell, else 0. */
	readonly seen: Sql
	/** Whether they see it on every row. */
	readonly isOpen: boolean
}

/** Undefined where they are not, or where the reader sees nothing of it. */
export function toldApart(
	table: Table,
	column: Column,
	{ catalogue, rights, ctx }: Plans & { ctx: Context }
): ToldApart | undefined {
	const cell = rights.cell(table, column)
	const as = groupedAs(column, columnType(catalogue, column).kind)
	if (as === undefined || isNever(cell) || countsAnew(column, rights)) return undefined
	const isOpen = isAlways(cell)
	const seen = isOpen
		? raw('1')
		: sql`(CASE WHEN ${compileCondition(cell, { ...ctx, visibility: undefined })} THEN 1 ELSE 0 END)`
	return { as, seen, isOpen, ...keyOf(table, column, { as, ctx, catalogue, rights }) }
}

const WORDS: ReadonlySet<Column['type']> = new Set([
	'text',
	'email',
	'phone',
	'web address',
	'code',
	'choice',
	'yes/no'
])

function groupedAs(column: Column, kind: string): GroupedAs | undefined {
	if (column.type === 'reference') return 'references'
	if (kind === 'number') return 'numbers'
	if (kind === 'date' || kind === 'datetime') return 'dates'
	const isWorded = column.type === 'computed' ? kind === 'text' || kind === 'yesno' : WORDS.has(column.type)
	return isWorded ? 'words' : undefined
}

interface Keying extends Plans {
	readonly as: GroupedAs
	readonly ctx: Context
}

/** By what values are the same, and how they are written. */
function keyOf(table: Table, column: Column, { as, ctx, catalogue, rights }: Keying): { key: Sql; shown: Sql } {
	if (as === 'references') {
		const target = getTable(catalogue, column.to ?? 0)
		const label = getColumn(target, target.label)
		const isSeen = labelOf(column, target, { rights, ctx }, () => raw('1'))
		const points = raw(`r.c${column.id}`)
		// Where every row of that table is seen, none has to be looked for.
		const isOpen = isAlways(rights.rows(target)) && isAlways(rights.cell(target, label))
		return {
			key: isOpen ? points : sql`(CASE WHEN ${points} IS NULL OR ${isSeen} = 1 THEN ${points} ELSE ${HIDDEN} END)`,
			shown: labelOf(column, target, { rights, ctx }, (alias) => raw(`${alias}.c${label.id}`))
		}
	}
	if (hasKey(column)) return { key: raw(`r.${comparedPlace(column)}`), shown: raw(`r.c${column.id}`) }
	if (column.type === 'choice' || column.type === 'yes/no')
		return { key: raw(`r.c${column.id}`), shown: raw(`r.c${column.id}`) }
	const value = virtualValue(table, column, ctx)
	return {
		key: column.computed?.expr.type.kind === 'text' ? sql`text_key(${value})` : value,
		shown: value
	}
}

/** Stands for every row that is not seen, among the numbers of those that are. */
export const HIDDEN = -1
