/**
 * What a formula is compiled in: who looks and when, the rows in reach by name, and what of them the reader sees.
 */
import { param, raw, type Sql } from '../../sql/sql.ts'
import type { Column, Table } from '../../model/table.ts'
import type { Moment } from '../evaluate/fold.ts'
import { isErrorValue, type Expr, type Value } from '../../model/formula.ts'

/** What a reader may see, as conditions over one row of a table (level 0). */
export interface Visibility {
	rows(table: Table): Expr
	/** Where a cell is seen, given that its row is. A computed cell needs every operand in its row as well. */
	cell(table: Table, column: Column): Expr
}

export interface Context {
	/** Who looks, and when: for the virtual columns that depend on it. The formula itself comes folded. */
	readonly moment: Moment
	/** The names of the rows in reach, by level. */
	readonly aliases: readonly string[]
	readonly visibility: Visibility | undefined
	/** Names of rows that the reader is filling in: what they typed there is theirs to read. */
	readonly own?: ReadonlySet<string>
	/** Makes a fresh name for a row of a subquery. */
	readonly newAlias: () => string
}

export const TRUE = raw('1')
export const FALSE = raw('0')
export const NULL = raw('NULL')

/**
 * The context of a formula over one row, called `alias` in the query. `visibility` is left out where all of the data is
 * meant.
 */
export function newContext(alias: string, moment: Moment, visibility?: Visibility): Context {
	let count = 0
	return { moment, aliases: [alias], visibility, newAlias: () => `${alias}_${++count}` }
}

/** Bound as a whole number: as a floating one each comparison would convert (281 against 470 ms over 3,000,000 rows). */
export function whole(value: number | null): Sql {
	return param(value !== null && Number.isSafeInteger(value) ? BigInt(value) : value)
}

export function literal(value: Value): Sql {
	if (value === null || isErrorValue(value)) return NULL
	return param(typeof value === 'boolean' ? Number(value) : value)
}

export function withAlias(ctx: Context, level: number, alias: string): Context {
	return { ...ctx, aliases: [...ctx.aliases.slice(0, level), alias] }
}

export function isTruthy(value: Value): boolean {
	return value === true || (typeof value === 'number' && value !== 0)
}

export function isBlankLiteral(expr: Expr): boolean {
	return expr.kind === 'literal' && expr.value === null
}

export function aliasAt(ctx: Context, level: number): string {
	const alias = ctx.aliases[level]
	if (alias === undefined) throw new Error(`Expected a row at level ${level}, got ${ctx.aliases.length} rows`)
	return alias
}
