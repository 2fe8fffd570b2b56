/**
 * Rows measured: counted, or a column of theirs added up, averaged, its least or most, by up to two columns. Only of rows that
 * the reader sees; rows whose group is kept back are left out and counted, and of the others those whose measured cell is.
 *
 *     how many inspections there were, by month and verdict
 *     → SELECT e, k0, min(s0), k1, min(s1), count(*), count(*), 0 FROM (SELECT substr(r.c23, 1, 7) AS k0, … FROM t6 AS r WHERE …) GROUP BY e, k0, k1 …
 */
import { columnType } from '../formula/check/column-type.ts'
import { newContext } from '../formula/sql/sql-context.ts'
import type { Plain } from '../model/formula.ts'
import type { Column } from '../model/table.ts'
import { allOf, joinSql, param, raw, sql, type Sql } from '../sql/sql.ts'
import { inBands } from './bands.ts'
import { toldApart } from './groups.ts'
import { conditionsOf, rowsOf, TICK, type PageRequest, type Plans } from './request.ts'

/** What is made of many rows. */
export const MEASURES = ['count', 'sum', 'mean', 'least', 'most'] as const
export type MeasureOf = (typeof MEASURES)[number]

/** The same of values that are at hand; null where there is nothing to measure. */
export function madeOf(of: MeasureOf, values: readonly Plain[]): number | null {
	if (of === 'count') return values.length
	const numbers = values.filter((value) => typeof value === 'number')
	const sum = numbers.reduce((all, value) => all + value, 0)
	if (of === 'sum') return Number(sum.toPrecision(15))
	if (numbers.length === 0) return null
	if (of === 'mean') return Number((sum / numbers.length).toPrecision(15))
	return numbers.reduce((a, b) => (of === 'least' ? Math.min(a, b) : Math.max(a, b)))
}

/** In which steps dates are taken together. */
export const PERIODS = ['days', 'weeks', 'months', 'quarters', 'years'] as const
export type Step = (typeof PERIODS)[number]

/** How wide the bands are in which numbers are taken together. */
export interface Band {
	readonly width: number
}

export interface Measured {
	readonly of: MeasureOf
	/** Of numbers; none, for a count. */
	readonly column?: Column | undefined
}

export interface MeasuredBy {
	readonly column: Column
	/** For a column of dates, or of numbers. */
	readonly step: Step | Band | null
}

export interface Measuring {
	readonly measured: Measured
	readonly by: readonly MeasuredBy[]
	/** How many groups are read. */
	readonly limit: number
	/** How many rows are measured, those that were added last; all, where it is left out. */
	readonly most?: number | undefined
}

export interface MeasurePlan {
	/**
	 * One row a group, of dates the latest first, of numbers the least, of others the largest: whether its groups are seen, then of each column its key and how that is written (only of
	 * a text; of numbers in bands their mean), then rows, the measure, rows whose measured cell is kept back, and the rows of all
	 * groups.
	 */
	readonly groups: Sql
}

/** Undefined where the reader sees nothing of a column that it goes by, or where that tells no rows apart. */
export function planMeasure(
	request: Pick<PageRequest, 'table' | 'where' | 'among'>,
	{ measured, by, limit, most }: Measuring,
	plans: Plans
): MeasurePlan | undefined {
	const { table } = request
	const ctx = newContext('r', plans.rights.moment, plans.rights)
	const told = by.map(({ column }) => toldApart(table, column, { ...plans, ctx }))
	const value = measured.column && toldApart(table, measured.column, { ...plans, ctx })
	const groups = told.flatMap((each) => each ?? [])
	const isMeasurable = measured.of === 'count' || value?.as === 'numbers'
	if (groups.length < by.length || !isMeasurable) return undefined
	const { visibility, rest } = conditionsOf({ ...request, columns: [] }, plans.rights, ctx)
	// What is seen on every row is asked on none.
	const masked = groups.flatMap(({ isOpen }, i) => (isOpen ? [] : [`e${i}`]))
	const isMasked = value !== undefined && !value.isOpen
	const columns = groups.flatMap(({ key, shown, seen, as, isOpen }, i) => [
		sql`${as === 'dates' ? inSteps(dayOf(key, by[i]?.column, plans), by[i]?.step ?? null) : as === 'numbers' ? inBand(key, by[i]?.step) : key} AS ${raw(`k${i}`)}`,
		...(writtenAs(by[i]) ? [sql`${as === 'numbers' ? key : shown} AS ${raw(`s${i}`)}`] : []),
		...(isOpen ? [] : [sql`${seen} AS ${raw(`e${i}`)}`])
	])
	const cell = value ? [sql`${value.key} AS m`, ...(isMasked ? [sql`${value.seen} AS em`] : [])] : []
	const inner = [...columns, ...cell, ...(columns.length + cell.length === 0 ? [raw('1')] : [])]
	const from = sql`(SELECT ${joinSql(inner, ', ')} FROM ${rowsOf(request)} WHERE ${allOf([TICK, ...visibility, ...rest])}${addedLast(most)})`
	const isSeen = raw(masked.length === 0 ? '1' : masked.join(' AND '))
	const keys = groups.map((_group, i) =>
		masked.length === 0 ? raw(`k${i}`) : sql`(CASE WHEN ${isSeen} THEN ${raw(`k${i}`)} END)`
	)
	const asked = keys.flatMap((key, i) => [key, raw(writtenAs(by[i])?.(`s${i}`) ?? 'NULL')])
	const made = raw(AGGREGATE[measured.of](isMasked ? 'CASE WHEN em THEN m END' : 'm'))
	const out = joinSql(
		[
			isSeen,
			...asked,
			raw('count(*)'),
			made,
			raw(isMasked ? 'sum(NOT em)' : '0'),
			raw(keys.length === 0 ? 'count(*)' : 'sum(count(*)) OVER ()')
		],
		', '
	)
	const grouping = joinSql([...(masked.length === 0 ? [] : [isSeen]), ...keys], ', ')
	const grouped = keys.length === 0 ? raw('') : sql`GROUP BY ${grouping} `
	const [first] = keys
	// What is left out is told whatever is cut off; then come those that are shown: the latest, the least, or the largest.
	const along =
		first && groups[0]?.as === 'dates'
			? sql`${first} IS NULL DESC, ${first} DESC`
			: first && groups[0]?.as === 'numbers'
				? sql`${first} IS NULL DESC, ${first}`
				: raw('count(*) DESC')
	const order = masked.length === 0 ? along : sql`${isSeen}, ${along}`
	return {
		groups: sql`SELECT ${out} FROM ${from} ${grouped}ORDER BY ${order} LIMIT ${param(limit)}`
	}
}

/** A table is numbered as its rows were added. */
export function addedLast(most: number | undefined): Sql {
	return most === undefined ? raw('') : sql` ORDER BY r.n DESC LIMIT ${param(most)}`
}

/**
 * Of a text one way in which it is written, and where the numbers of a band lie; of rows that are pointed to names are looked up
 * once the groups are there.
 */
function writtenAs(by: MeasuredBy | undefined): ((value: string) => string) | undefined {
	if (by === undefined || ['reference', 'choice', 'yes/no', 'date', 'date and time'].includes(by.column.type))
		return undefined
	return isBand(by.step) ? AGGREGATE.mean : AGGREGATE.least
}

export function isBand(step: Step | Band | null | undefined): step is Band {
	return typeof step === 'object' && step !== null
}

function inBand(key: Sql, step: Step | Band | null | undefined): Sql {
	return isBand(step) ? inBands(key, step.width) : key
}

const AGGREGATE: Readonly<Record<MeasureOf, (value: string) => string>> = {
	count: () => 'count(*)',
	sum: (value) => `total(${value})`,
	mean: (value) => `avg(${value})`,
	least: (value) => `min(${value})`,
	most: (value) => `max(${value})`
}

/** An instant lies on the day that it is where the workspace is. */
function dayOf(key: Sql, column: Column | undefined, { catalogue }: Plans): Sql {
	const isInstant = column !== undefined && columnType(catalogue, column).kind === 'datetime'
	return isInstant ? sql`fn_date_of(${key}, ${param(catalogue.timeZone)})` : key
}

/** A date as its period: of weeks the Monday (ISO 8601), of quarters `2026-4`. */
function inSteps(key: Sql, step: Step | Band | null): Sql {
	switch (step) {
		case 'years':
			return sql`substr(${key}, 1, 4)`
		case 'quarters':
			return sql`substr(${key}, 1, 5) || ((CAST(substr(${key}, 6, 2) AS INTEGER) + 2) / 3)`
		case 'months':
			return sql`substr(${key}, 1, 7)`
		case 'weeks':
			return sql`date(${key}, 'weekday 0', '-6 days')`
		default:
			return sql`substr(${key}, 1, 10)`
	}
}
