/**
 * Conditions as SQL, with regard to polarity: a comparison stands bare where it must be true, so that an index serves it (a
 * `coalesce` around it cost 13-20 ms against 0.07 on a million rows); `formula-plans.test.ts` reads the plans.
 *
 * What is compared is a value by its key: text without regard to case, a choice by its number.
 */
import { holdsFile } from '../../capture/attachment.ts'
import { allOf, anyOf, joinSql, param, raw, sql, type Sql } from '../../sql/sql.ts'
import { hasKey, scaleOf } from '../../table/storage.ts'
import type { Column } from '../../model/table.ts'
import { textKey } from '../../text/key.ts'
import { caught, errorOf } from './compile-errors.ts'
import { choiceText, columnValue, throughReference, valueOf } from './compile-values.ts'
import { FITS, soughtAnywhere } from '../functions/wildcards.ts'
import { FLIPPED, choiceNumber, scaleBound, solveDates, type DateRange } from './solve.ts'
import { maskOf } from './compile-visibility.ts'
import { FALSE, TRUE, aliasAt, isBlankLiteral, isTruthy, literal, whole, type Context } from './sql-context.ts'
import type { CompareOp, Expr, Value } from '../../model/formula.ts'

/** A condition that is true exactly where the formula is: never for a blank or an error. */
export function conditionOf(expr: Expr, ctx: Context): Sql {
	// A part in error makes the whole no, as a part that does not hold does.
	if (expr.kind === 'and') return allOf(expr.args.map((arg) => conditionOf(arg, ctx)))
	const range = expr.kind === 'compare' ? solveDates(expr) : undefined
	if (range && !errorOf(range.column, ctx)) return holdsRange(withinWorks(range), true, ctx)
	const error = errorOf(expr, ctx)
	const condition = holds(expr, true, ctx)
	return error ? sql`((${error}) IS NULL AND ${condition})` : condition
}

/** True exactly where the value of `expr` counts as `want`; otherwise false or NULL. Errors are not looked at. */
export function holds(expr: Expr, want: boolean, ctx: Context): Sql {
	switch (expr.kind) {
		case 'literal':
			return isTruthy(expr.value) === want ? TRUE : FALSE
		case 'and':
		case 'or': {
			const parts = expr.args.map((arg) => holds(arg, want, ctx))
			return (expr.kind === 'and') === want ? allOf(parts) : anyOf(parts)
		}
		case 'not':
			return holds(expr.arg, !want, ctx)
		case 'compare':
			return holdsCompare(expr, want, ctx)
		case 'in':
			return unlessWanted(want, holdsIn(expr, ctx))
		case 'isblank':
			return want ? sql`(${blankable(expr.arg, ctx)} IS NULL)` : sql`(${blankable(expr.arg, ctx)} IS NOT NULL)`
		case 'if':
			return sql`(CASE WHEN ${holds(expr.test, true, ctx)} THEN ${holds(expr.then, want, ctx)} ELSE ${holds(expr.else, want, ctx)} END)`
		case 'iferror': {
			const error = caught(expr, ctx)
			if (!error) return holds(expr.arg, want, ctx)
			return sql`(CASE WHEN ${error} THEN ${holds(expr.else, want, ctx)} ELSE ${holds(expr.arg, want, ctx)} END)`
		}
		case 'iserror':
			return unlessWanted(want, isError(expr, ctx))
		case 'istype':
			return unlessWanted(want, isOfType(expr, ctx))
		case 'granted':
			return unlessWanted(want, isGranted(expr, ctx))
		case 'field':
			if (expr.column.type === 'yes/no') return holdsYesNo(expr, want, ctx)
			break
		case 'call': {
			const found = holdsSought(expr, want, ctx)
			if (found) return found
			break
		}
		default:
	}
	return unlessWanted(want, sql`(${valueOf(expr, ctx)} <> 0)`)
}

/** A text that stands anywhere in another is found in the stored key, without a call of ours for each row. */
function holdsSought({ fn, args }: Expr & { kind: 'call' }, want: boolean, ctx: Context): Sql | undefined {
	const [text, pattern] = args
	if (fn !== FITS || !text || pattern?.kind !== 'literal' || typeof pattern.value !== 'string') return undefined
	const sought = soughtAnywhere(pattern.value)
	if (sought === undefined) return undefined
	const isDate = text.kind === 'totext' && text.arg.type.kind === 'date'
	// A date is its own key.
	const { value, guard } = isDate ? { value: valueOf(text, ctx) } : comparable(text, ctx)
	const first = mayHoldDigits(text, sought, ctx)
	const stands = sql`instr(${value}, ${param(textKey(sought))}) > 0`
	const found = first ? sql`(${first} AND ${stands})` : sql`(${stands})`
	return unlessWanted(want, guard ? allOf([found, guard]) : found)
}

/**
 * Holds for every number in whose text form the digits stand, and asks the database alone: the text form itself is ours,
 * and takes ten times as long. The digits of `12.5` stand in the 125 or 1250 that it is stored as.
 */
function mayHoldDigits(text: Expr, sought: string, ctx: Context): Sql | undefined {
	if (text.kind !== 'totext' || text.arg.kind !== 'field' || text.arg.of.kind !== 'this') return undefined
	const { column, of } = text.arg
	const digits = sought.replace(/\D/g, '').replace(/^0+/, '')
	// Smaller ones are written as 1E-7.
	const isPlain = DIGITS.has(column.type) && scaleOf(column) <= 1_000_000
	if (!isPlain || digits === '' || (column.type === 'decimal' && column.places === undefined)) return undefined
	return sql`instr(CAST(${raw(`${aliasAt(ctx, of.level)}.c${column.id}`)} AS TEXT), ${param(digits)}) > 0`
}

/** Types that are stored as whole numbers with the digits that they show. */
const DIGITS: ReadonlySet<Column['type']> = new Set(['whole number', 'money', 'decimal', 'percent'])

function unlessWanted(want: boolean, condition: Sql): Sql {
	return want ? condition : sql`(${condition} IS NOT TRUE)`
}

function holdsYesNo(expr: Expr & { kind: 'field' }, want: boolean, ctx: Context): Sql {
	const { value, guard } = comparable(expr, ctx)
	const positive = guard ? sql`(${value} = 1 AND ${guard})` : sql`(${value} = 1)`
	return unlessWanted(want, positive)
}

const OPPOSITE = { '<': '>=', '<=': '>', '>': '<=', '>=': '<' } as const

function holdsCompare(expr: Expr & { kind: 'compare' }, want: boolean, ctx: Context): Sql {
	if (expr.op === '<>') return holdsCompare({ ...expr, op: '=' }, !want, ctx)
	if (isBlankLiteral(expr.left) || isBlankLiteral(expr.right)) return want ? FALSE : TRUE
	const range = solveDates(expr)
	if (range) return holdsRange(range, want, ctx)
	const solved = solveScaled(expr, ctx)
	const left = solved?.left ?? comparable(expr.left, ctx)
	const right = solved?.right ?? comparable(expr.right, ctx)
	const op = solved?.op ?? expr.op
	if (op === '<>') throw new Error('Expected "<>" to be compiled as the opposite of "="')
	const guards = [left.guard, right.guard].filter((guard) => guard !== undefined)
	const bare = sql`(${left.value} ${raw(op)} ${right.value})`
	if (want || op === '=' || guards.length > 0)
		return unlessWanted(want, guards.length > 0 ? allOf([bare, ...guards]) : bare)
	const constant = expr.left.kind === 'literal' || expr.right.kind === 'literal'
	const column = solved || isColumnOf(expr.left) ? left.value : isColumnOf(expr.right) ? right.value : undefined
	if (!constant || !column) return sql`(${bare} IS NOT TRUE)`
	// Both halves can use the index of the column, which `IS NOT TRUE` would lose.
	return sql`(${left.value} ${raw(OPPOSITE[op])} ${right.value} OR ${column} IS NULL)`
}

/** A comparison that was solved for a date column: the column itself lies in a range. */
function holdsRange({ column, from, before }: DateRange, want: boolean, ctx: Context): Sql {
	const { value, guard } = comparable(column, ctx)
	const inside = allOf(
		[
			from === undefined && before === undefined ? sql`(${value} IS NOT NULL)` : undefined,
			from === undefined ? undefined : sql`(${value} >= ${param(from)})`,
			before === undefined ? undefined : sql`(${value} < ${param(before)})`,
			guard
		].filter((part) => part !== undefined)
	)
	return unlessWanted(want, inside)
}

/** The range without the dates on which its function fails: there the condition is no, so it need not be asked apart. */
function withinWorks(range: DateRange): DateRange {
	const { works } = range
	const later = (a: string | undefined, b: string | undefined) => (a === undefined || (b ?? '') > a ? b : a)
	const sooner = (a: string | undefined, b: string | undefined) => (a === undefined || (b ?? a) < a ? b : a)
	return { ...range, from: later(range.from, works.from), before: sooner(range.before, works.before) }
}

function isColumnOf(expr: Expr): boolean {
	return expr.kind === 'field' && expr.of.kind === 'this' && !expr.column.computed
}

interface Comparable {
	readonly value: Sql
	/** Must hold as well: the reader sees this cell. Kept apart so that the comparison stays bare for the index. */
	readonly guard?: Sql
}

/** What is compared: text by its key, a choice by its number, the rest by value. */
export function comparable(expr: Expr, ctx: Context): Comparable {
	if (expr.kind === 'literal') return { value: literal(expr.type.kind === 'text' ? keyOf(expr.value) : expr.value) }
	if (expr.kind !== 'field')
		return { value: expr.type.kind === 'text' ? sql`text_key(${valueOf(expr, ctx)})` : valueOf(expr, ctx) }
	if (expr.of.kind !== 'this') return { value: throughReference(expr, ctx, comparedColumn) }
	const alias = aliasAt(ctx, expr.of.level)
	const guard = maskOf(expr.table, expr.column, alias, ctx)
	const value = comparedColumn(expr.column, alias, ctx)
	return guard ? { value, guard } : { value }
}

function keyOf(value: Value): Value {
	return typeof value === 'string' ? textKey(value) : value
}

function comparedColumn(column: Column, alias: string, ctx: Context): Sql {
	if (hasKey(column)) return raw(`${alias}.c${column.id}k`)
	if (column.type === 'choice') return choiceText(column, alias, textKey)
	const value = columnValue(column, alias, ctx)
	const isText = column.type === 'long text' || holdsFile(column) || column.computed?.expr.type.kind === 'text'
	return isText ? sql`text_key(${value})` : value
}

/**
 * A column of whole or scaled numbers against a constant: `amount > 500` becomes `c > 50000`, exactly.
 * A choice against its own text becomes its number.
 */
function solveScaled(
	expr: Expr & { kind: 'compare' },
	ctx: Context
): { left: Comparable; op: CompareOp; right: Comparable } | undefined {
	const flipped = expr.left.kind === 'literal'
	const [field, constant] = flipped ? [expr.right, expr.left] : [expr.left, expr.right]
	if (field.kind !== 'field' || field.of.kind !== 'this' || constant.kind !== 'literal') return undefined
	const op = flipped ? FLIPPED[expr.op] : expr.op
	const alias = aliasAt(ctx, field.of.level)
	const guard = maskOf(field.table, field.column, alias, ctx)
	const left = { value: raw(`${alias}.c${field.column.id}`), ...(guard ? { guard } : {}) }
	if (field.column.type === 'choice' && op === '=' && typeof constant.value === 'string') {
		return { left, op, right: { value: whole(choiceNumber(field.column, constant.value)) } }
	}
	const isWhole = field.column.type === 'whole number' || scaleOf(field.column) > 1
	if (!isWhole || typeof constant.value !== 'number') return undefined
	const bound = scaleBound(op, constant.value, scaleOf(field.column))
	return { left, op: bound.op, right: { value: whole(bound.value) } }
}

function holdsIn(expr: Expr & { kind: 'in' }, ctx: Context): Sql {
	const list = expr.list.filter((item) => !isBlankLiteral(item))
	if (isBlankLiteral(expr.item) || list.length === 0) return FALSE
	const { value, guard } = comparable(expr.item, ctx)
	const items = list.map((item) => comparable(item, ctx))
	const inside = sql`(${value} IN (${joinSql(
		items.map((item) => guarded(item)),
		', '
	)}))`
	return guard ? allOf([inside, guard]) : inside
}

export function guarded({ value, guard }: Comparable): Sql {
	return guard ? sql`(CASE WHEN ${guard} THEN ${value} END)` : value
}

function isGranted(expr: Expr & { kind: 'granted' }, ctx: Context): Sql {
	const alias = raw(aliasAt(ctx, 0))
	const column = expr.column === undefined ? raw('') : sql` AND column_id = ${param(expr.column)}`
	return sql`(${alias}.n IN (SELECT row_n FROM row_grant WHERE person = ${param(expr.person)} AND table_id = ${param(expr.table.id)}${column}))`
}

function isError(expr: Expr & { kind: 'iserror' }, ctx: Context): Sql {
	const error = errorOf(expr.arg, ctx)
	if (!error) return FALSE
	if (expr.which === 'na') return sql`((${error}) IS 7)`
	return expr.which === 'any' ? sql`((${error}) IS NOT NULL)` : sql`(coalesce(${error}, 7) <> 7)`
}

const NUMBER_KINDS: ReadonlySet<string> = new Set(['number', 'date', 'datetime', 'duration'])

/** Whether a value is a number (dates are, as in OpenFormula) or a text; an error is neither. */
function isOfType(expr: Expr & { kind: 'istype' }, ctx: Context): Sql {
	const { kind } = expr.arg.type
	const value = valueOf(expr.arg, ctx)
	const types = expr.which === 'text' ? sql`('text')` : sql`('real', 'integer')`
	const fits = expr.which === 'text' ? kind === 'text' : NUMBER_KINDS.has(kind)
	if (!fits && kind !== 'mixed') return FALSE
	const is = kind === 'mixed' ? sql`(typeof(${value}) IN ${types})` : sql`(${value} IS NOT NULL)`
	const error = errorOf(expr.arg, ctx)
	return error ? sql`((${error}) IS NULL AND ${is})` : is
}

/** A value that is NULL where `ISBLANK` says yes: empty text counts as blank. */
function blankable(expr: Expr, ctx: Context): Sql {
	const value = valueOf(expr, ctx)
	return expr.kind === 'field' || (expr.type.kind !== 'text' && expr.type.kind !== 'mixed')
		? value
		: sql`nullif(${value}, '')`
}
