/**
 * Sets of rows and what is made of them as SQL: totals, the first of them, their values gathered for a function. With a sight,
 * rows and cells that the reader does not see are left out; a total that is kept is read where it serves (`rollups.ts`).
 */
import { isAlways } from '../syntax/constant.ts'
import { allOf, joinSql, param, raw, sql, type Sql } from '../../sql/sql.ts'
import { scaleOf } from '../../table/storage.ts'
import { getColumn } from '../../model/table.ts'
import { comparable, conditionOf, guarded } from './compile-conditions.ts'
import { errorOf } from './compile-errors.ts'
import { valueOf } from './compile-values.ts'
import { PART_NAMES, partsOfTotal, placeByValue, whereServed, type OneValue } from './rollups.ts'
import { maskOf, visibilityOf } from './compile-visibility.ts'
import { NULL, TRUE, aliasAt, withAlias, type Context } from './sql-context.ts'
import type { AggregateName, Expr, Rollup } from '../../model/formula.ts'

interface Source {
	readonly alias: string
	readonly from: Sql
	/** What its rows must fit; `whereOf` adds what ends it. */
	readonly where: readonly Sql[]
	/** The order of a sorted set; without one, rows come in the order in which they were added. */
	readonly order?: Sql
}

function orderOf({ alias, order }: Source): Sql {
	const added = raw(`${alias}.n`)
	return order ? sql`${order}, ${added}` : added
}

/**
 * The rows of a set that fit, counted as they are looked at, so that sets within sets can be ended (`core/query/request.ts`).
 * Where a row asks for further rows, each is counted: no table is too small to be gone through a million times. Otherwise every
 * 256th: a set alone costs 16 ns a row by it, where a call for each would cost 60.
 */
function whereOf({ alias }: Source, where: readonly Sql[], items: readonly Sql[]): Sql {
	const goesOn = [...where, ...items].some(({ text }) => text.includes('SELECT'))
	return allOf([goesOn ? EACH_TICKS : raw(`((${alias}.n & 255) OR tick())`), ...where])
}

const EACH_TICKS = raw('tick()')

function sourceOf(set: Expr, ctx: Context): Source {
	if (set.kind === 'children') {
		const alias = ctx.newAlias()
		if (set.type.kind !== 'rows') throw new Error('Expected children to be a set of rows')
		const child = set.type.table
		const column = getColumn(child, set.backReference.column)
		const mask = maskOf(child, column, alias, ctx)
		const points = sql`${raw(`${alias}.c${column.id}`)} = ${valueOf(set.of, ctx)}`
		const where = [points, ...visibilityOf(child, alias, ctx), ...(mask ? [mask] : [])]
		return { alias, from: sql`t${child.id} AS ${raw(alias)}`, where }
	}
	if (set.kind !== 'filter' && set.kind !== 'sort') throw new Error(`Expected a set of rows, got "${set.kind}"`)
	const source = sourceOf(set.rows, ctx)
	const inner = withAlias(ctx, set.level, source.alias)
	if (set.kind === 'filter') return { ...source, where: [...source.where, conditionOf(set.where, inner)] }
	return { ...source, order: sortOrder(set, inner) }
}

/** Blanks and errors come last, whichever way the rest goes. */
function sortOrder(set: Expr & { kind: 'sort' }, ctx: Context): Sql {
	const { value, guard } = comparable(set.key, ctx)
	const error = errorOf(set.key, ctx)
	const seen = guarded(guard ? { value, guard } : { value })
	const key = error ? sql`(CASE WHEN (${error}) IS NULL THEN ${seen} END)` : seen
	return sql`${key} ${raw(set.falling ? 'DESC' : 'ASC')} NULLS LAST`
}

/** The first row of a set, or what an item of a set is in its first row. */
export function firstOf(expr: Expr & { kind: 'first' }, ctx: Context, read: (item: Expr, ctx: Context) => Sql): Sql {
	const { set } = expr
	const source = sourceOf(set.kind === 'each' ? set.rows : set, ctx)
	const what = set.kind === 'each' ? read(set.item, withAlias(ctx, set.level, source.alias)) : raw(`${source.alias}.n`)
	const where = whereOf(source, source.where, [what, orderOf(source)])
	return sql`(SELECT ${what} FROM ${source.from} WHERE ${where} ORDER BY ${orderOf(source)} LIMIT 1)`
}

/** The values of a set as one JSON text, in their order; `gather` is registered with the database. */
export function gathered(set: Expr, ctx: Context): Sql {
	if (set.kind === 'list') return gatheredList(set, ctx)
	if (set.kind !== 'each') throw new Error(`Expected a set of values, got "${set.kind}"`)
	const source = sourceOf(set.rows, ctx)
	const inner = withAlias(ctx, set.level, source.alias)
	const error = errorOf(set.item, inner)
	const value = valueOf(set.item, inner)
	const fits = error ? [...source.where, sql`(${error}) IS NULL`] : source.where
	const where = whereOf(source, fits, [value, orderOf(source)])
	return sql`(SELECT gather(${value} ORDER BY ${orderOf(source)}) FROM ${source.from} WHERE ${where})`
}

function gatheredList({ items }: Expr & { kind: 'list' }, ctx: Context): Sql {
	if (items.length === 0) return param('[]')
	const values = items.map((item) => valueOf(item, ctx))
	return sql`gather_list(${joinSql(values, ', ')})`
}

const AGGREGATES = { COUNT: 'count', COUNTA: 'count', SUM: 'sum', MIN: 'min', MAX: 'max', AVERAGE: 'avg' } as const

export function aggregateValue(expr: Expr & { kind: 'aggregate' }, ctx: Context): Sql {
	if (!expr.rollup) return totalValue(expr, ctx)
	const kept = rollupValue(expr.rollup, `${aliasAt(ctx, 0)}.${expr.rollup.place}`)
	if (!ctx.visibility) return kept
	const { where, elseNone, elseOf } = whereServed(expr.rollup, ctx.visibility)
	if (isAlways(where)) return kept
	const other = elseNone ? nothingOf(expr) : elseOf ? rollupOfOne(expr.rollup, elseOf, ctx) : totalValue(expr, ctx)
	if (where.kind === 'literal') return other
	const served = conditionOf(where, { ...ctx, aliases: [aliasAt(ctx, 0)], visibility: undefined })
	return sql`(CASE WHEN ${served} THEN ${kept} ELSE ${other} END)`
}

/** A total of no rows. */
function nothingOf({ name }: Pick<Rollup, 'name'>): Sql {
	return name === 'COUNT' || name === 'COUNTA' || name === 'SUM' ? raw('0.0') : NULL
}

/** A total of the children that hold one value in a column: it lies in a table of its own, by row and value. */
function rollupOfOne(total: Rollup, { column, value }: OneValue, ctx: Context): Sql {
	const alias = ctx.newAlias()
	const found = sql`SELECT ${rollupValue(total, `${alias}.`)} FROM ${raw(placeByValue(total, column))} AS ${raw(alias)}`
	const sought = comparable(value, ctx).value
	const one = sql`(${found} WHERE ${raw(`${alias}.p`)} = ${raw(aliasAt(ctx, 0))}.n AND ${raw(`${alias}.v`)} = ${sought})`
	return sql`coalesce(${one}, ${nothingOf(total)})`
}

/** A total that lies in the store already, as the formula sees it. `place`: what the names of its parts begin with. */
function rollupValue(total: Rollup, place: string): Sql {
	const [first = 'count'] = partsOfTotal(total)
	const at = raw(`${place}${PART_NAMES[first]}`)
	const scale = total.item ? scaleOf(total.item) : 1
	if (total.name === 'AVERAGE') {
		const mean = raw(`${place}${PART_NAMES.mean}`)
		return scale > 1 ? sql`(${mean} / ${raw(`${scale}.0`)})` : mean
	}
	if (first !== 'count' && scale > 1) return sql`(${at} / ${raw(`${scale}.0`)})`
	return total.name === 'SUM' || total.item?.type === 'whole number' ? sql`CAST(${at} AS REAL)` : at
}

function totalValue(expr: Expr & { kind: 'aggregate' }, ctx: Context): Sql {
	const [first] = expr.args
	if (!first) throw new Error(`Expected "${expr.name}" to have an argument`)
	if (first.type.kind !== 'rows' && first.type.kind !== 'set') return scalarAggregate(expr, ctx)
	if (first.kind !== 'each') {
		const source = sourceOf(first, ctx)
		return sql`(SELECT count(*) FROM ${source.from} WHERE ${whereOf(source, source.where, [])})`
	}
	const source = sourceOf(first.rows, ctx)
	const inner = withAlias(ctx, first.level, source.alias)
	const error = errorOf(first.item, inner)
	const conditions = error ? [...source.where, sql`(${error}) IS NULL`] : source.where
	const { item, scale } = summed(expr, first.item, inner)
	const total = sql`${raw(AGGREGATES[expr.name])}(${item})`
	return sql`(SELECT ${finish(expr, total, scale)} FROM ${source.from} WHERE ${whereOf(source, conditions, [item])})`
}

/** Columns of fixed places are summed as the whole numbers they are stored as, so that totals are exact. */
function summed(expr: Expr & { kind: 'aggregate' }, item: Expr, ctx: Context): { item: Sql; scale: number } {
	const sums = expr.name === 'SUM' || expr.name === 'AVERAGE'
	if (!sums || item.kind !== 'field' || item.of.kind !== 'this' || scaleOf(item.column) === 1) {
		return { item: valueOf(item, ctx), scale: 1 }
	}
	const alias = aliasAt(ctx, item.of.level)
	const mask = maskOf(item.table, item.column, alias, ctx)
	const stored = raw(`${alias}.c${item.column.id}`)
	return { item: mask ? sql`(CASE WHEN ${mask} THEN ${stored} END)` : stored, scale: scaleOf(item.column) }
}

function finish(expr: Expr & { kind: 'aggregate' }, total: Sql, scale: number): Sql {
	const divided = scale > 1 ? sql`${total} / ${raw(`${scale}.0`)}` : total
	return expr.name === 'SUM' ? sql`coalesce(${divided}, 0.0)` : divided
}

function scalarAggregate(expr: Expr & { kind: 'aggregate' }, ctx: Context): Sql {
	const rows = expr.args.map((arg) => sql`SELECT ${counted(expr.name, arg, ctx)} AS v`)
	const total = sql`${raw(AGGREGATES[expr.name])}(v)`
	return sql`(SELECT ${finish(expr, total, 1)} FROM (${joinSql(rows, ' UNION ALL ')}))`
}

/** COUNT passes over errors and COUNTA counts them; every other total passes them on (OpenFormula 6.13.6, from memory). */
function counted(name: AggregateName, arg: Expr, ctx: Context): Sql {
	const value = valueOf(arg, ctx)
	const error = name === 'COUNT' || name === 'COUNTA' ? errorOf(arg, ctx) : undefined
	return error ? sql`(CASE WHEN (${error}) IS NULL THEN ${value} ELSE ${name === 'COUNTA' ? TRUE : NULL} END)` : value
}
