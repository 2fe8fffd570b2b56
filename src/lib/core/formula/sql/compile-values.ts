/** Values as SQL: NULL where blank or in error, yes/no as 1 and 0, columns in the form that formulas see. */
import { holdsFile } from '../../capture/attachment.ts'
import { allOf, joinSql, param, quoteText, raw, sql, type Sql } from '../../sql/sql.ts'
import { scaleOf } from '../../table/storage.ts'
import type { Column, Computed } from '../../model/table.ts'
import { unreachable } from '../../unreachable.ts'
import { holds } from './compile-conditions.ts'
import { caught, errorOf } from './compile-errors.ts'
import { aggregateValue, firstOf, gathered } from './compile-sets.ts'
import { fold } from '../evaluate/fold.ts'
import { isSetType } from '../functions/define.ts'
import { maskOf, visibilityOf } from './compile-visibility.ts'
import { NULL, aliasAt, literal, type Context } from './sql-context.ts'
import type { Expr } from '../../model/formula.ts'
import { isVolatile } from '../syntax/walk.ts'

export function valueOf(expr: Expr, ctx: Context): Sql {
	switch (expr.kind) {
		case 'literal':
			return literal(expr.value)
		case 'this':
			return raw(`${aliasAt(ctx, expr.level)}.n`)
		case 'field':
			return fieldValue(expr, ctx)
		case 'aggregate':
			return aggregateValue(expr, ctx)
		case 'first':
			return firstOf(expr, ctx, valueOf)
		case 'errortype':
			return sql`(${errorOf(expr.arg, ctx) ?? NULL})`
		case 'arithmetic':
			return arithmeticValue(expr, ctx)
		case 'negate':
			return sql`(-${numberOf(expr.arg, ctx)})`
		case 'join':
			return sql`(${textOf(expr.left, ctx)} || ${textOf(expr.right, ctx)})`
		case 'totext':
			return toTextValue(expr.arg, ctx)
		case 'if':
			return sql`(CASE WHEN ${holds(expr.test, true, ctx)} THEN ${branchOf(expr.then, ctx)} ELSE ${branchOf(expr.else, ctx)} END)`
		case 'iferror': {
			const error = caught(expr, ctx)
			if (!error) return valueOf(expr.arg, ctx)
			return sql`(CASE WHEN ${error} THEN ${valueOf(expr.else, ctx)} ELSE ${valueOf(expr.arg, ctx)} END)`
		}
		case 'call':
			return expr.fn.sql ? expr.fn.sql(...argumentsOf(expr, ctx)) : callSql('fn', expr, ctx)
		case 'compare':
		case 'in':
		case 'and':
		case 'or':
		case 'not':
		case 'isblank':
		case 'iserror':
		case 'istype':
		case 'granted':
			return sql`(CASE WHEN ${holds(expr, true, ctx)} THEN 1 ELSE 0 END)`
		case 'me':
			return valueOf(ownCell(expr, ctx), { ...ctx, visibility: undefined })
		case 'now':
			throw new Error('Expected "now" to be folded before compiling')
		case 'children':
		case 'filter':
		case 'sort':
		case 'each':
		case 'list':
			throw new Error(`Expected a single value, got the set "${expr.kind}"`)
		default:
			return unreachable(expr, 'valueOf')
	}
}

/** A text that is bound is copied for each row that gets it: 330 against 265 ms over 3,000,000 rows. */
function branchOf(expr: Expr, ctx: Context): Sql {
	const constant = expr.kind === 'literal' && typeof expr.value === 'string' ? quoteText(expr.value) : undefined
	return constant ?? valueOf(expr, ctx)
}

/** A number for arithmetic: blank is 0. */
export function numberOf(expr: Expr, ctx: Context): Sql {
	if (expr.kind === 'literal') return literal(expr.value ?? 0)
	return sql`coalesce(${valueOf(expr, ctx)}, 0.0)`
}

function textOf(expr: Expr, ctx: Context): Sql {
	if (expr.kind === 'literal') return literal(expr.value ?? '')
	return sql`coalesce(${valueOf(expr, ctx)}, '')`
}

function toTextValue(arg: Expr, ctx: Context): Sql {
	const value = valueOf(arg, ctx)
	if (arg.type.kind === 'yesno') return sql`(CASE ${value} WHEN 1 THEN 'TRUE' WHEN 0 THEN 'FALSE' END)`
	if (arg.type.kind === 'duration') return sql`duration_text(${value})`
	if (arg.type.kind === 'number' || arg.type.kind === 'mixed') return sql`number_text(${value})`
	return value
}

export function arithmeticValue(expr: Expr & { kind: 'arithmetic' }, ctx: Context): Sql {
	const left = numberOf(expr.left, ctx)
	const right = numberOf(expr.right, ctx)
	if (expr.op === '^') return sql`number_power(${left}, ${right})`
	// Counts and lengths are whole numbers in the database, which would divide them without a remainder.
	if (expr.op === '/') return sql`(${left} * 1.0 / ${right})`
	return sql`(${left} ${raw(expr.op)} ${right})`
}

function fieldValue(expr: Expr & { kind: 'field' }, ctx: Context): Sql {
	if (expr.of.kind !== 'this') return throughReference(expr, ctx, columnValue)
	const alias = aliasAt(ctx, expr.of.level)
	const value = columnValue(expr.column, alias, ctx)
	const mask = maskOf(expr.table, expr.column, alias, ctx)
	return mask ? sql`(CASE WHEN ${mask} THEN ${value} END)` : value
}

/** The value that formulas see, of a column of the row that is called `alias`. */
export function columnValue(column: Column, alias: string, ctx: Context): Sql {
	const name = raw(`${alias}.c${column.id}`)
	if (column.computed) {
		if (column.computed.stored) return name
		const value = valueOf(virtualColumnOf(column.computed, ctx), virtualContext(column, alias, ctx))
		return column.computed.expr.type.kind === 'text' ? sql`nullif(${value}, '')` : value
	}
	if (column.type === 'choice') return choiceText(column, alias, (label) => label)
	if (holdsFile(column)) return sql`json_extract(${name}, '$.name')`
	if (scaleOf(column) > 1) return sql`(${name} / ${raw(`${scaleOf(column)}.0`)})`
	return column.type === 'whole number' ? sql`CAST(${name} AS REAL)` : name
}

/** A virtual column that reads the clock or the looker is folded for this moment, so that an index can serve it too. */
export function virtualColumnOf({ expr }: Computed, { moment }: Context): Expr {
	return isVolatile(expr) ? fold(expr, moment) : expr
}

/** A virtual column of the looker's own row, which folding cannot work out: read like any other row's, as the data is. */
export function ownCell(expr: Expr & { kind: 'me' }, { moment }: Context): Expr {
	const { table, column, type } = expr
	const n = expr.row === undefined ? (moment.me?.n ?? null) : expr.row
	const row: Expr = { kind: 'literal', value: n, type: { kind: 'row', table } }
	return column ? { kind: 'field', of: row, table, column, type } : row
}

export function virtualContext(column: Column, alias: string, ctx: Context): Context {
	return { ...ctx, aliases: [alias], visibility: column.computed?.vouched ? undefined : ctx.visibility }
}

export function choiceText(column: Column, alias: string, form: (label: string) => string): Sql {
	const choices = column.choices ?? []
	if (choices.length === 0) return NULL
	const whens = choices.map((label, i) => sql`WHEN ${raw(String(i + 1))} THEN ${param(form(label))}`)
	return sql`(CASE ${raw(`${alias}.c${column.id}`)} ${joinSql(whens, ' ')} END)`
}

/** `harbour.name`: the cell of the row that a reference points to, if the reader may see that row and that cell. */
export function throughReference(
	expr: Expr & { kind: 'field' },
	ctx: Context,
	read: (column: Column, alias: string, ctx: Context) => Sql
): Sql {
	const alias = ctx.newAlias()
	const conditions = [sql`${raw(alias)}.n = ${valueOf(expr.of, ctx)}`, ...visibilityOf(expr.table, alias, ctx)]
	const mask = maskOf(expr.table, expr.column, alias, ctx)
	if (mask) conditions.push(mask)
	return sql`(SELECT ${read(expr.column, alias, ctx)} FROM t${expr.table.id} AS ${raw(alias)} WHERE ${allOf(conditions)})`
}

function functionName(expr: Expr & { kind: 'call' }): string {
	return expr.fn.name.toLowerCase().replaceAll('.', '_')
}

/** `fn_…` gives the value, `fault_…` the number of its error: names that the rules of saved workspaces hold. */
export function callSql(prefix: 'fn' | 'fault', expr: Expr & { kind: 'call' }, ctx: Context): Sql {
	return sql`${raw(`${prefix}_${functionName(expr)}`)}(${joinSql(argumentsOf(expr, ctx), ', ')})`
}

function argumentsOf(expr: Expr & { kind: 'call' }, ctx: Context): Sql[] {
	return expr.args.map((arg, i) => {
		const type = expr.fn.parameters[i]?.type
		if (isSetType(type)) return gathered(arg, ctx)
		if (type === 'yesno') return sql`(CASE WHEN ${holds(arg, true, ctx)} THEN 1 ELSE 0 END)`
		if (type === 'number' || type === 'time') return numberOf(arg, ctx)
		return type === 'text' ? textOf(arg, ctx) : valueOf(arg, ctx)
	})
}
