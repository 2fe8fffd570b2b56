/**
 * The error of a formula as SQL: the number of the first among its parts, in the order of the text. Emitted only where a part
 * can fail; whether it can is judged from types and from bounds on numbers.
 */
import { anyOf, joinSql, param, raw, sql, type Sql } from '../../sql/sql.ts'
import type { Column } from '../../model/table.ts'
import { unreachable } from '../../unreachable.ts'
import { holds } from './compile-conditions.ts'
import { firstOf } from './compile-sets.ts'
import {
	arithmeticValue,
	callSql,
	virtualContext,
	virtualColumnOf,
	numberOf,
	ownCell,
	throughReference,
	valueOf
} from './compile-values.ts'
import { solveDates, type DateRange } from './solve.ts'
import { maskOf } from './compile-visibility.ts'
import { NULL, aliasAt, withAlias, type Context } from './sql-context.ts'
import { isErrorValue, type Expr } from '../../model/formula.ts'

/** The dates outside a solved range on which its function fails. */
function rangeError({ column, works }: DateRange, ctx: Context): Sql | undefined {
	const value = valueOf(column, ctx)
	const outside = [
		works.from === undefined ? undefined : sql`(${value} < ${param(works.from)})`,
		works.before === undefined ? undefined : sql`(${value} >= ${param(works.before)})`
	].filter((part) => part !== undefined)
	return works.errorCode === 0 || outside.length === 0
		? undefined
		: sql`(CASE WHEN ${anyOf(outside)} THEN ${raw(String(works.errorCode))} END)`
}

/** Where `IFERROR` or `IFNA` steps in; undefined where there is nothing to catch. */
export function caught(expr: Expr & { kind: 'iferror' }, ctx: Context): Sql | undefined {
	const error = errorOf(expr.arg, ctx)
	return error && (expr.only === 'na' ? sql`((${error}) IS 7)` : sql`((${error}) IS NOT NULL)`)
}

/** The number of the first error among the parts, in the order of the text, or undefined where there can be none. */
export function errorOf(expr: Expr, ctx: Context): Sql | undefined {
	switch (expr.kind) {
		case 'literal':
			return isErrorValue(expr.value) ? raw(String(expr.value.errorCode)) : undefined
		case 'field':
			return fieldError(expr, ctx)
		case 'aggregate':
			return aggregateError(expr, ctx)
		case 'arithmetic':
			return firstError([errorOf(expr.left, ctx), errorOf(expr.right, ctx), ownError(expr, ctx)])
		case 'compare': {
			const range = solveDates(expr)
			if (range) return firstError([errorOf(range.column, ctx), rangeError(range, ctx)])
			return firstError([errorOf(expr.left, ctx), errorOf(expr.right, ctx)])
		}
		case 'join':
			return firstError([errorOf(expr.left, ctx), errorOf(expr.right, ctx)])
		case 'negate':
		case 'totext':
		case 'not':
		case 'isblank':
			return errorOf(expr.arg, ctx)
		case 'and':
		case 'or':
			return firstError(expr.args.map((arg) => errorOf(arg, ctx)))
		case 'in':
			return firstError([expr.item, ...expr.list].map((part) => errorOf(part, ctx)))
		case 'if':
			return ifError(expr, ctx)
		case 'iferror': {
			const inner = errorOf(expr.arg, ctx)
			const catches = caught(expr, ctx)
			if (!inner || !catches) return undefined
			const other = errorOf(expr.else, ctx) ?? NULL
			return sql`(CASE WHEN ${catches} THEN ${other} ELSE ${inner} END)`
		}
		case 'errortype': {
			const inner = errorOf(expr.arg, ctx)
			return inner ? sql`(CASE WHEN (${inner}) IS NULL THEN 7 END)` : raw('7')
		}
		case 'first':
			return firstErrorOf(expr, ctx)
		case 'list':
			return firstError(expr.items.map((item) => errorOf(item, ctx)))

		case 'call': {
			const parts = expr.args.map((arg) => errorOf(arg, ctx))
			return firstError([...parts, expr.fn.canFail ? callSql('fault', expr, ctx) : undefined])
		}
		case 'me':
			return errorOf(ownCell(expr, ctx), { ...ctx, visibility: undefined })
		case 'this':
		case 'now':
		case 'iserror':
		case 'istype':
		case 'granted':
		case 'children':
		case 'filter':
		case 'sort':
		case 'each':
			return undefined
		default:
			return unreachable(expr, 'errorOf')
	}
}

function firstError(errors: readonly (Sql | undefined)[]): Sql | undefined {
	const some = errors.filter((error) => error !== undefined)
	if (some.length <= 1) return some[0]
	return sql`coalesce(${joinSql(some, ', ')})`
}

function ifError(expr: Expr & { kind: 'if' }, ctx: Context): Sql | undefined {
	const test = errorOf(expr.test, ctx)
	const then = errorOf(expr.then, ctx)
	const otherwise = errorOf(expr.else, ctx)
	if (!then && !otherwise) return test
	const branches = sql`(CASE WHEN ${holds(expr.test, true, ctx)} THEN ${then ?? NULL} ELSE ${otherwise ?? NULL} END)`
	return test ? sql`coalesce(${test}, ${branches})` : branches
}

/** An error in a kept column lies beside it; one in a virtual column is worked out. Through a reference both are looked up. */
function fieldError(expr: Expr & { kind: 'field' }, ctx: Context): Sql | undefined {
	const read = (column: Column, alias: string, inner: Context): Sql | undefined => {
		if (!column.computed) return undefined
		if (column.computed.stored) return raw(`${alias}.c${column.id}e`)
		return errorOf(virtualColumnOf(column.computed, inner), virtualContext(column, alias, inner))
	}
	if (expr.of.kind !== 'this') {
		const before = errorOf(expr.of, ctx)
		if (!read(expr.column, 'unused', ctx)) return before
		const looked = throughReference(expr, ctx, (column, alias, inner) => read(column, alias, inner) ?? NULL)
		return firstError([before, looked])
	}
	const alias = aliasAt(ctx, expr.of.level)
	const error = read(expr.column, alias, ctx)
	const mask = error && maskOf(expr.table, expr.column, alias, ctx)
	return mask ? sql`(CASE WHEN ${mask} THEN ${error} END)` : error
}

/** Rows in error are not left out of FIRST: it is the first row that was asked for. */
function firstErrorOf(expr: Expr & { kind: 'first' }, ctx: Context): Sql | undefined {
	const { set } = expr
	if (set.kind !== 'each' || !errorOf(set.item, withAlias(ctx, set.level, 'unused'))) return undefined
	return firstOf(expr, ctx, (item, inner) => errorOf(item, inner) ?? NULL)
}

function aggregateError(expr: Expr & { kind: 'aggregate' }, ctx: Context): Sql | undefined {
	const [first] = expr.args
	if (first && (first.type.kind === 'rows' || first.type.kind === 'set')) return undefined
	if (expr.name === 'COUNT' || expr.name === 'COUNTA') return undefined
	return firstError(expr.args.map((arg) => errorOf(arg, ctx)))
}

/** Division by nought, and results past what a number can hold. The latter is asked only where it can happen. */
function ownError(expr: Expr & { kind: 'arithmetic' }, ctx: Context): Sql | undefined {
	const value = arithmeticValue(expr, ctx)
	if (expr.op === '^') return sql`(CASE WHEN ${value} IS NULL THEN 6 END)`
	const overflow = magnitude(expr) > 300 ? sql` WHEN abs(${value}) > 1.7976931348623157e308 THEN 6` : raw('')
	if (expr.op === '/' && !isNonZero(expr.right))
		return sql`(CASE WHEN ${numberOf(expr.right, ctx)} = 0 THEN 2${overflow} END)`
	return overflow.text === '' ? undefined : sql`(CASE${overflow} END)`
}

function isNonZero(expr: Expr): boolean {
	return expr.kind === 'literal' && typeof expr.value === 'number' && expr.value !== 0
}

/** A bound on the power of ten that a number can reach; the door keeps decimals within 1e100. */
function magnitude(expr: Expr): number {
	switch (expr.kind) {
		case 'literal':
			return typeof expr.value === 'number' && expr.value !== 0 ? Math.log10(Math.abs(expr.value)) : 0
		case 'field':
			if (expr.column.computed) return expr.column.computed.stored ? 309 : magnitude(expr.column.computed.expr)
			return expr.column.type === 'decimal' ? 100 : 16
		case 'negate':
			return magnitude(expr.arg)
		case 'arithmetic':
			if (expr.op === '*') return magnitude(expr.left) + magnitude(expr.right)
			if (expr.op === '/') return magnitude(expr.left) + smallness(expr.right)
			return expr.op === '^' ? 309 : Math.max(magnitude(expr.left), magnitude(expr.right)) + 1
		case 'if':
			return Math.max(magnitude(expr.then), magnitude(expr.else))
		case 'iferror':
			return Math.max(magnitude(expr.arg), magnitude(expr.else))
		case 'aggregate': {
			const [first] = expr.args
			return first?.kind === 'each' ? magnitude(first.item) + 16 : Math.max(...expr.args.map(magnitude)) + 16
		}
		case 'first':
			return expr.set.kind === 'each' ? magnitude(expr.set.item) : 16
		case 'call':
			return expr.fn.canFail && expr.fn.result === 'number' ? 309 : Math.max(16, ...expr.args.map(magnitude))
		default:
			return 16
	}
}

/** A bound on how small a divisor can be, as a negative power of ten. */
function smallness(expr: Expr): number {
	if (isNonZero(expr)) return -magnitude(expr)
	if (expr.kind === 'field' && !expr.column.computed && expr.column.type !== 'decimal') return 4
	return 324
}
