/**
 * Turns a typed formula into SQL over the store's tables.
 *
 * - Values travel as `?` parameters, never as text; names are made from numbers.
 * - Every node agrees with `evaluate.ts` on every input: `tests/unit/formula-two-lives.test.ts`.
 * - A blank is NULL. Whether a value is an error is a second expression, emitted only where a part can fail.
 * - `holds` knows polarity: a comparison stands bare where it must be true, so that an index serves it (a `coalesce`
 *   around it cost 13-20 ms against 0.07 on a million rows); `compile.plans.test.ts` reads the plans.
 * - With a sight, what the reader may not see is left out: related rows by their rows' condition, cells by their mask.
 *
 * Does not fold constants; that is `fold.ts`, and comparing with `me` needs it done before. Longer than other files,
 * because values, conditions, sets and faults call one another at every node.
 */
import { holdsFile } from '../capture/attachment.ts'
import { hasKey, scaleOf } from '../table/storage.ts'
import { getColumn, type Column, type Computed, type Table } from '../table/types.ts'
import { textKey } from '../text/key.ts'
import { allOf, anyOf, joinSql, param, quoteText, raw, sql, type Sql } from '../query/sql.ts'
import { unreachable } from '../unreachable.ts'
import { fold, type Moment } from './fold.ts'
import { isSetType } from './functions/define.ts'
import { FITS, soughtAnywhere } from './functions/wildcards.ts'
import { PART_NAMES, partsOfTotal, placeByValue, whereServed, type OneValue } from './kept.ts'
import { choiceNumber, FLIPPED, scaleBound, solveDates, type DateRange } from './solve.ts'
import { isFault, type AggregateName, type CompareOp, type Expr, type KeptTotal, type Value } from './types.ts'
import { isVolatile } from './walk.ts'

/** What a reader may see, as conditions over one row of a table (level 0). */
export interface Sight {
	rows(table: Table): Expr
	/** Where a cell is seen, given that its row is. A computed cell needs every operand in its row as well. */
	cell(table: Table, column: Column): Expr
}

export interface Context {
	/** Who looks, and when: for the layers that depend on it. The formula itself comes folded. */
	readonly moment: Moment
	/** The names of the rows in reach, by level. */
	readonly aliases: readonly string[]
	readonly sight: Sight | undefined
	/** Makes a fresh name for a row of a subquery. */
	readonly newAlias: () => string
}

export class FormulaTooLong extends Error {
	override readonly name = 'FormulaTooLong'
}

/** Longer SQL takes seconds to prepare (50 s at depth 24 when layers are inlined without a bound). */
const MAX_LENGTH = 120_000

const TRUE = raw('1')
const FALSE = raw('0')
const NULL = raw('NULL')

export function newContext(alias: string, moment: Moment, sight?: Sight): Context {
	let count = 0
	return { moment, aliases: [alias], sight, newAlias: () => `${alias}_${++count}` }
}

/** The value of a formula; NULL where it is blank or in error. Yes/no as 1 and 0. */
export function compileValue(expr: Expr, ctx: Context): Sql {
	return bounded(valueOf(expr, ctx))
}

/** The number of the error of a formula, or undefined if it can have none. */
export function compileFault(expr: Expr, ctx: Context): Sql | undefined {
	const fault = faultOf(expr, ctx)
	return fault && bounded(fault)
}

/** A condition that is true exactly where the formula is: never for a blank or an error. */
export function compileCondition(expr: Expr, ctx: Context): Sql {
	// A part in error makes the whole no, as a part that does not hold does.
	if (expr.kind === 'and') return bounded(allOf(expr.args.map((arg) => compileCondition(arg, ctx))))
	const range = expr.kind === 'compare' ? solveDates(expr) : undefined
	if (range && !faultOf(range.column, ctx)) return bounded(holdsRange(withinWorks(range), true, ctx))
	const fault = faultOf(expr, ctx)
	const condition = holds(expr, true, ctx)
	return bounded(fault ? sql`((${fault}) IS NULL AND ${condition})` : condition)
}

function bounded(compiled: Sql): Sql {
	if (compiled.text.length > MAX_LENGTH)
		throw new FormulaTooLong(`Cannot compile formula: ${compiled.text.length} characters`)
	return compiled
}

/** True exactly where the value of `expr` counts as `want`; otherwise false or NULL. Errors are not looked at. */
function holds(expr: Expr, want: boolean, ctx: Context): Sql {
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
			const fault = caught(expr, ctx)
			if (!fault) return holds(expr.arg, want, ctx)
			return sql`(CASE WHEN ${fault} THEN ${holds(expr.else, want, ctx)} ELSE ${holds(expr.arg, want, ctx)} END)`
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

/** The dates outside a solved range on which its function fails. */
function rangeFault({ column, works }: DateRange, ctx: Context): Sql | undefined {
	const value = valueOf(column, ctx)
	const outside = [
		works.from === undefined ? undefined : sql`(${value} < ${param(works.from)})`,
		works.before === undefined ? undefined : sql`(${value} >= ${param(works.before)})`
	].filter((part) => part !== undefined)
	return works.fault === 0 || outside.length === 0
		? undefined
		: sql`(CASE WHEN ${anyOf(outside)} THEN ${raw(String(works.fault))} END)`
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
function comparable(expr: Expr, ctx: Context): Comparable {
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

/** Bound as a whole number: as a floating one each comparison would convert (281 against 470 ms over 3,000,000 rows). */
function whole(value: number | null): Sql {
	return param(value !== null && Number.isSafeInteger(value) ? BigInt(value) : value)
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

function guarded({ value, guard }: Comparable): Sql {
	return guard ? sql`(CASE WHEN ${guard} THEN ${value} END)` : value
}

function isGranted(expr: Expr & { kind: 'granted' }, ctx: Context): Sql {
	const alias = raw(aliasAt(ctx, 0))
	const column = expr.column === undefined ? raw('') : sql` AND column_id = ${param(expr.column)}`
	return sql`(${alias}.n IN (SELECT row_n FROM row_grant WHERE person = ${param(expr.person)} AND table_id = ${param(expr.table.id)}${column}))`
}

function valueOf(expr: Expr, ctx: Context): Sql {
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
			return sql`(${faultOf(expr.arg, ctx) ?? NULL})`
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
			const fault = caught(expr, ctx)
			if (!fault) return valueOf(expr.arg, ctx)
			return sql`(CASE WHEN ${fault} THEN ${valueOf(expr.else, ctx)} ELSE ${valueOf(expr.arg, ctx)} END)`
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
			return valueOf(ownCell(expr, ctx), { ...ctx, sight: undefined })
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

function literal(value: Value): Sql {
	if (value === null || isFault(value)) return NULL
	return param(typeof value === 'boolean' ? Number(value) : value)
}

/** Where `IFERROR` or `IFNA` steps in; undefined where there is nothing to catch. */
function caught(expr: Expr & { kind: 'iferror' }, ctx: Context): Sql | undefined {
	const fault = faultOf(expr.arg, ctx)
	return fault && (expr.only === 'na' ? sql`((${fault}) IS 7)` : sql`((${fault}) IS NOT NULL)`)
}

function isError(expr: Expr & { kind: 'iserror' }, ctx: Context): Sql {
	const fault = faultOf(expr.arg, ctx)
	if (!fault) return FALSE
	if (expr.which === 'na') return sql`((${fault}) IS 7)`
	return expr.which === 'any' ? sql`((${fault}) IS NOT NULL)` : sql`(coalesce(${fault}, 7) <> 7)`
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
	const fault = faultOf(expr.arg, ctx)
	return fault ? sql`((${fault}) IS NULL AND ${is})` : is
}

/** A number for arithmetic: blank is 0. */
function numberOf(expr: Expr, ctx: Context): Sql {
	if (expr.kind === 'literal') return literal(expr.value ?? 0)
	return sql`coalesce(${valueOf(expr, ctx)}, 0.0)`
}

function textOf(expr: Expr, ctx: Context): Sql {
	if (expr.kind === 'literal') return literal(expr.value ?? '')
	return sql`coalesce(${valueOf(expr, ctx)}, '')`
}

/** A value that is NULL where `ISBLANK` says yes: empty text counts as blank. */
function blankable(expr: Expr, ctx: Context): Sql {
	const value = valueOf(expr, ctx)
	return expr.kind === 'field' || (expr.type.kind !== 'text' && expr.type.kind !== 'mixed')
		? value
		: sql`nullif(${value}, '')`
}

function toTextValue(arg: Expr, ctx: Context): Sql {
	const value = valueOf(arg, ctx)
	if (arg.type.kind === 'yesno') return sql`(CASE ${value} WHEN 1 THEN 'TRUE' WHEN 0 THEN 'FALSE' END)`
	if (arg.type.kind === 'duration') return sql`duration_text(${value})`
	if (arg.type.kind === 'number' || arg.type.kind === 'mixed') return sql`number_text(${value})`
	return value
}

function arithmeticValue(expr: Expr & { kind: 'arithmetic' }, ctx: Context): Sql {
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
function columnValue(column: Column, alias: string, ctx: Context): Sql {
	const name = raw(`${alias}.c${column.id}`)
	if (column.computed) {
		if (column.computed.stored) return name
		const value = valueOf(layerOf(column.computed, ctx), layerContext(column, alias, ctx))
		return column.computed.expr.type.kind === 'text' ? sql`nullif(${value}, '')` : value
	}
	if (column.type === 'choice') return choiceText(column, alias, (label) => label)
	if (holdsFile(column)) return sql`json_extract(${name}, '$.name')`
	if (scaleOf(column) > 1) return sql`(${name} / ${raw(`${scaleOf(column)}.0`)})`
	return column.type === 'whole number' ? sql`CAST(${name} AS REAL)` : name
}

/** A layer that reads the clock or the looker is folded for this moment, so that an index can serve it too. */
function layerOf({ expr }: Computed, { moment }: Context): Expr {
	return isVolatile(expr) ? fold(expr, moment) : expr
}

/** A layer of the looker's own row, which folding cannot work out: read like any other row's, as the data is. */
function ownCell(expr: Expr & { kind: 'me' }, { moment }: Context): Expr {
	const { table, column, type } = expr
	const n = expr.row === undefined ? (moment.me?.n ?? null) : expr.row
	const row: Expr = { kind: 'literal', value: n, type: { kind: 'row', table } }
	return column ? { kind: 'field', of: row, table, column, type } : row
}

function layerContext(column: Column, alias: string, ctx: Context): Context {
	return { ...ctx, aliases: [alias], sight: column.computed?.vouched ? undefined : ctx.sight }
}

function choiceText(column: Column, alias: string, form: (label: string) => string): Sql {
	const choices = column.choices ?? []
	if (choices.length === 0) return NULL
	const whens = choices.map((label, i) => sql`WHEN ${raw(String(i + 1))} THEN ${param(form(label))}`)
	return sql`(CASE ${raw(`${alias}.c${column.id}`)} ${joinSql(whens, ' ')} END)`
}

/** `harbour.name`: the cell of the row that a reference points to, if the reader may see that row and that cell. */
function throughReference(
	expr: Expr & { kind: 'field' },
	ctx: Context,
	read: (column: Column, alias: string, ctx: Context) => Sql
): Sql {
	const alias = ctx.newAlias()
	const conditions = [sql`${raw(alias)}.n = ${valueOf(expr.of, ctx)}`, ...sightOf(expr.table, alias, ctx)]
	const mask = maskOf(expr.table, expr.column, alias, ctx)
	if (mask) conditions.push(mask)
	return sql`(SELECT ${read(expr.column, alias, ctx)} FROM t${expr.table.id} AS ${raw(alias)} WHERE ${allOf(conditions)})`
}

function sightOf(table: Table, alias: string, ctx: Context): Sql[] {
	if (!ctx.sight) return []
	const seen = compileCondition(ctx.sight.rows(table), { ...ctx, aliases: [alias], sight: undefined })
	return seen === TRUE ? [] : [seen]
}

/** Where the reader sees a cell; undefined where every row that is seen shows it. */
function maskOf(table: Table, column: Column, alias: string, ctx: Context): Sql | undefined {
	if (!ctx.sight) return undefined
	const mask = compileCondition(ctx.sight.cell(table, column), { ...ctx, aliases: [alias], sight: undefined })
	return mask === TRUE ? undefined : mask
}

interface Source {
	readonly alias: string
	readonly from: Sql
	readonly where: readonly Sql[]
	/** The order of a sorted set; without one, rows come in the order in which they were added. */
	readonly order?: Sql
}

function orderOf({ alias, order }: Source): Sql {
	const added = raw(`${alias}.n`)
	return order ? sql`${order}, ${added}` : added
}

function sourceOf(set: Expr, ctx: Context): Source {
	if (set.kind === 'children') {
		const alias = ctx.newAlias()
		if (set.type.kind !== 'rows') throw new Error('Expected children to be a set of rows')
		const child = set.type.table
		const column = getColumn(child, set.reverse.column)
		const mask = maskOf(child, column, alias, ctx)
		const points = sql`${raw(`${alias}.c${column.id}`)} = ${valueOf(set.of, ctx)}`
		const where = [points, ...sightOf(child, alias, ctx), ...(mask ? [mask] : [])]
		return { alias, from: sql`t${child.id} AS ${raw(alias)}`, where }
	}
	if (set.kind !== 'filter' && set.kind !== 'sort') throw new Error(`Expected a set of rows, got "${set.kind}"`)
	const source = sourceOf(set.rows, ctx)
	const inner = withAlias(ctx, set.level, source.alias)
	if (set.kind === 'filter') return { ...source, where: [...source.where, compileCondition(set.where, inner)] }
	return { ...source, order: sortOrder(set, inner) }
}

/** Blanks and errors come last, whichever way the rest goes. */
function sortOrder(set: Expr & { kind: 'sort' }, ctx: Context): Sql {
	const { value, guard } = comparable(set.key, ctx)
	const fault = faultOf(set.key, ctx)
	const seen = guarded(guard ? { value, guard } : { value })
	const key = fault ? sql`(CASE WHEN (${fault}) IS NULL THEN ${seen} END)` : seen
	return sql`${key} ${raw(set.falling ? 'DESC' : 'ASC')} NULLS LAST`
}

/** The first row of a set, or what an item of a set is in its first row. */
function firstOf(expr: Expr & { kind: 'first' }, ctx: Context, read: (item: Expr, ctx: Context) => Sql): Sql {
	const { set } = expr
	const source = sourceOf(set.kind === 'each' ? set.rows : set, ctx)
	const what = set.kind === 'each' ? read(set.item, withAlias(ctx, set.level, source.alias)) : raw(`${source.alias}.n`)
	return sql`(SELECT ${what} FROM ${source.from} WHERE ${allOf(source.where)} ORDER BY ${orderOf(source)} LIMIT 1)`
}

/** The values of a set as one JSON text, in their order; `gather` is registered with the database. */
function gathered(set: Expr, ctx: Context): Sql {
	if (set.kind === 'list') return gatheredList(set, ctx)
	if (set.kind !== 'each') throw new Error(`Expected a set of values, got "${set.kind}"`)
	const source = sourceOf(set.rows, ctx)
	const inner = withAlias(ctx, set.level, source.alias)
	const fault = faultOf(set.item, inner)
	const where = allOf(fault ? [...source.where, sql`(${fault}) IS NULL`] : source.where)
	return sql`(SELECT gather(${valueOf(set.item, inner)} ORDER BY ${orderOf(source)}) FROM ${source.from} WHERE ${where})`
}

function gatheredList({ items }: Expr & { kind: 'list' }, ctx: Context): Sql {
	if (items.length === 0) return param('[]')
	const values = items.map((item) => valueOf(item, ctx))
	return sql`gather_list(${joinSql(values, ', ')})`
}

function withAlias(ctx: Context, level: number, alias: string): Context {
	return { ...ctx, aliases: [...ctx.aliases.slice(0, level), alias] }
}

const AGGREGATES = { COUNT: 'count', COUNTA: 'count', SUM: 'sum', MIN: 'min', MAX: 'max', AVERAGE: 'avg' } as const

function aggregateValue(expr: Expr & { kind: 'aggregate' }, ctx: Context): Sql {
	if (!expr.kept) return totalValue(expr, ctx)
	const kept = keptValue(expr.kept, `${aliasAt(ctx, 0)}.${expr.kept.place}`)
	if (!ctx.sight) return kept
	const { where, elseNone, elseOf } = whereServed(expr.kept, ctx.sight)
	if (isAlways(where)) return kept
	const other = elseNone ? nothingOf(expr) : elseOf ? keptOfOne(expr.kept, elseOf, ctx) : totalValue(expr, ctx)
	if (where.kind === 'literal') return other
	const served = compileCondition(where, { ...ctx, aliases: [aliasAt(ctx, 0)], sight: undefined })
	return sql`(CASE WHEN ${served} THEN ${kept} ELSE ${other} END)`
}

/** A total of no rows. */
function nothingOf({ name }: Pick<KeptTotal, 'name'>): Sql {
	return name === 'COUNT' || name === 'COUNTA' || name === 'SUM' ? raw('0.0') : NULL
}

/** A total of the children that hold one value in a column: it lies in a table of its own, by row and value. */
function keptOfOne(total: KeptTotal, { column, value }: OneValue, ctx: Context): Sql {
	const alias = ctx.newAlias()
	const found = sql`SELECT ${keptValue(total, `${alias}.`)} FROM ${raw(placeByValue(total, column))} AS ${raw(alias)}`
	const sought = comparable(value, ctx).value
	const one = sql`(${found} WHERE ${raw(`${alias}.p`)} = ${raw(aliasAt(ctx, 0))}.n AND ${raw(`${alias}.v`)} = ${sought})`
	return sql`coalesce(${one}, ${nothingOf(total)})`
}

/** A total that lies in the store already, as the formula sees it. `place`: what the names of its parts begin with. */
function keptValue(total: KeptTotal, place: string): Sql {
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
		const { from, where } = sourceOf(first, ctx)
		return sql`(SELECT count(*) FROM ${from} WHERE ${allOf(where)})`
	}
	const { alias, from, where } = sourceOf(first.rows, ctx)
	const inner = withAlias(ctx, first.level, alias)
	const fault = faultOf(first.item, inner)
	const conditions = fault ? [...where, sql`(${fault}) IS NULL`] : where
	const { item, scale } = summed(expr, first.item, inner)
	const total = sql`${raw(AGGREGATES[expr.name])}(${item})`
	return sql`(SELECT ${finish(expr, total, scale)} FROM ${from} WHERE ${allOf(conditions)})`
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
	const fault = name === 'COUNT' || name === 'COUNTA' ? faultOf(arg, ctx) : undefined
	return fault ? sql`(CASE WHEN (${fault}) IS NULL THEN ${value} ELSE ${name === 'COUNTA' ? TRUE : NULL} END)` : value
}

function functionName(expr: Expr & { kind: 'call' }): string {
	return expr.fn.name.toLowerCase().replaceAll('.', '_')
}

function callSql(prefix: 'fn' | 'fault', expr: Expr & { kind: 'call' }, ctx: Context): Sql {
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

/** The number of the first error among the parts, in the order of the text, or undefined where there can be none. */
function faultOf(expr: Expr, ctx: Context): Sql | undefined {
	switch (expr.kind) {
		case 'literal':
			return isFault(expr.value) ? raw(String(expr.value.fault)) : undefined
		case 'field':
			return fieldFault(expr, ctx)
		case 'aggregate':
			return aggregateFault(expr, ctx)
		case 'arithmetic':
			return firstFault([faultOf(expr.left, ctx), faultOf(expr.right, ctx), ownFault(expr, ctx)])
		case 'compare': {
			const range = solveDates(expr)
			if (range) return firstFault([faultOf(range.column, ctx), rangeFault(range, ctx)])
			return firstFault([faultOf(expr.left, ctx), faultOf(expr.right, ctx)])
		}
		case 'join':
			return firstFault([faultOf(expr.left, ctx), faultOf(expr.right, ctx)])
		case 'negate':
		case 'totext':
		case 'not':
		case 'isblank':
			return faultOf(expr.arg, ctx)
		case 'and':
		case 'or':
			return firstFault(expr.args.map((arg) => faultOf(arg, ctx)))
		case 'in':
			return firstFault([expr.item, ...expr.list].map((part) => faultOf(part, ctx)))
		case 'if':
			return ifFault(expr, ctx)
		case 'iferror': {
			const inner = faultOf(expr.arg, ctx)
			const catches = caught(expr, ctx)
			if (!inner || !catches) return undefined
			const other = faultOf(expr.else, ctx) ?? NULL
			return sql`(CASE WHEN ${catches} THEN ${other} ELSE ${inner} END)`
		}
		case 'errortype': {
			const inner = faultOf(expr.arg, ctx)
			return inner ? sql`(CASE WHEN (${inner}) IS NULL THEN 7 END)` : raw('7')
		}
		case 'first':
			return firstFaultOf(expr, ctx)
		case 'list':
			return firstFault(expr.items.map((item) => faultOf(item, ctx)))

		case 'call': {
			const parts = expr.args.map((arg) => faultOf(arg, ctx))
			return firstFault([...parts, expr.fn.canFail ? callSql('fault', expr, ctx) : undefined])
		}
		case 'me':
			return faultOf(ownCell(expr, ctx), { ...ctx, sight: undefined })
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
			return unreachable(expr, 'faultOf')
	}
}

function firstFault(faults: readonly (Sql | undefined)[]): Sql | undefined {
	const some = faults.filter((fault) => fault !== undefined)
	if (some.length <= 1) return some[0]
	return sql`coalesce(${joinSql(some, ', ')})`
}

function ifFault(expr: Expr & { kind: 'if' }, ctx: Context): Sql | undefined {
	const test = faultOf(expr.test, ctx)
	const then = faultOf(expr.then, ctx)
	const otherwise = faultOf(expr.else, ctx)
	if (!then && !otherwise) return test
	const branches = sql`(CASE WHEN ${holds(expr.test, true, ctx)} THEN ${then ?? NULL} ELSE ${otherwise ?? NULL} END)`
	return test ? sql`coalesce(${test}, ${branches})` : branches
}

/** An error in a kept column lies beside it; one in a layer is worked out. Through a reference both are looked up. */
function fieldFault(expr: Expr & { kind: 'field' }, ctx: Context): Sql | undefined {
	const read = (column: Column, alias: string, inner: Context): Sql | undefined => {
		if (!column.computed) return undefined
		if (column.computed.stored) return raw(`${alias}.c${column.id}e`)
		return faultOf(layerOf(column.computed, inner), layerContext(column, alias, inner))
	}
	if (expr.of.kind !== 'this') {
		const before = faultOf(expr.of, ctx)
		if (!read(expr.column, 'unused', ctx)) return before
		const looked = throughReference(expr, ctx, (column, alias, inner) => read(column, alias, inner) ?? NULL)
		return firstFault([before, looked])
	}
	const alias = aliasAt(ctx, expr.of.level)
	const fault = read(expr.column, alias, ctx)
	const mask = fault && maskOf(expr.table, expr.column, alias, ctx)
	return mask ? sql`(CASE WHEN ${mask} THEN ${fault} END)` : fault
}

/** Rows in error are not left out of FIRST: it is the first row that was asked for. */
function firstFaultOf(expr: Expr & { kind: 'first' }, ctx: Context): Sql | undefined {
	const { set } = expr
	if (set.kind !== 'each' || !faultOf(set.item, withAlias(ctx, set.level, 'unused'))) return undefined
	return firstOf(expr, ctx, (item, inner) => faultOf(item, inner) ?? NULL)
}

function aggregateFault(expr: Expr & { kind: 'aggregate' }, ctx: Context): Sql | undefined {
	const [first] = expr.args
	if (first && (first.type.kind === 'rows' || first.type.kind === 'set')) return undefined
	if (expr.name === 'COUNT' || expr.name === 'COUNTA') return undefined
	return firstFault(expr.args.map((arg) => faultOf(arg, ctx)))
}

/** Division by nought, and results past what a number can hold. The latter is asked only where it can happen. */
function ownFault(expr: Expr & { kind: 'arithmetic' }, ctx: Context): Sql | undefined {
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

function isAlways(expr: Expr): boolean {
	return expr.kind === 'literal' && isTruthy(expr.value)
}

function isTruthy(value: Value): boolean {
	return value === true || (typeof value === 'number' && value !== 0)
}

function isBlankLiteral(expr: Expr): boolean {
	return expr.kind === 'literal' && expr.value === null
}

function aliasAt(ctx: Context, level: number): string {
	const alias = ctx.aliases[level]
	if (alias === undefined) throw new Error(`Expected a row at level ${level}, got ${ctx.aliases.length} rows`)
	return alias
}
