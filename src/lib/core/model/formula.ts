/**
 * The shapes that a formula passes through: syntax, typed tree, value.
 *
 * - A value is blank (`null`), a number, text, yes/no, or an error. Dates are ISO 8601 text; only the type tells them from text.
 * - A row is known by its number inside the database; outside it never appears as one.
 */
import type { Sql } from '../sql/sql.ts'
import type { Column, BackReference, Table } from './table.ts'

export interface Span {
	readonly from: number
	readonly to: number
}

export interface Issue {
	readonly code: string
	/** A sentence for the person who wrote the formula, with the next step. */
	readonly message: string
	readonly span: Span
	/** What one press would write in its place. */
	readonly mend?: Mend
}

export interface Mend {
	/** What the button says. */
	readonly says: string
	readonly span: Span
	readonly text: string
}

export const ERROR_NAMES = ['', '', '#DIV/0!', '#VALUE!', '#REF!', '#NAME?', '#NUM!', '#N/A'] as const

/** The number that `ERROR.TYPE` gives for the error (OpenFormula 6.13.11, from memory). */
export type ErrorValueCode = 2 | 3 | 4 | 5 | 6 | 7

export interface ErrorValue {
	readonly errorCode: ErrorValueCode
}

export const DIV_ZERO: ErrorValue = { errorCode: 2 }
export const BAD_VALUE: ErrorValue = { errorCode: 3 }
export const BAD_NUMBER: ErrorValue = { errorCode: 6 }
export const NOT_AVAILABLE: ErrorValue = { errorCode: 7 }

export type Plain = null | number | string | boolean
export type Value = Plain | ErrorValue

export type Type =
	| { readonly kind: 'number' | 'text' | 'yesno' | 'date' | 'datetime' | 'blank' | 'mixed' }
	/** A span of time, or a time of day as the span since midnight, as a number of days. */
	| { readonly kind: 'duration' }
	| { readonly kind: 'row'; readonly table: Table }
	| { readonly kind: 'rows'; readonly table: Table }
	| { readonly kind: 'set'; readonly of: Type }

export type TypeKind = Type['kind']

/** What the parser makes: names are not yet resolved. */
export type Syntax = { readonly span: Span } & (
	| { readonly kind: 'number'; readonly value: number }
	| { readonly kind: 'text'; readonly value: string }
	| { readonly kind: 'yesno'; readonly value: boolean }
	| { readonly kind: 'name'; readonly name: string }
	| { readonly kind: 'me' | 'this' }
	| { readonly kind: 'member'; readonly of: Syntax; readonly name: string; readonly nameSpan: Span }
	| { readonly kind: 'call'; readonly name: string; readonly nameSpan: Span; readonly args: readonly Syntax[] }
	| { readonly kind: 'unary'; readonly op: '-' | '+' | '%' | 'not'; readonly arg: Syntax }
	| { readonly kind: 'binary'; readonly op: BinaryOp; readonly left: Syntax; readonly right: Syntax }
	| { readonly kind: 'list'; readonly items: readonly Syntax[] }
)

export type ArithmeticOp = '+' | '-' | '*' | '/' | '^'
export type CompareOp = '=' | '<>' | '<' | '<=' | '>' | '>='
export type BinaryOp = ArithmeticOp | CompareOp | '&' | 'and' | 'or' | 'in'

export type AggregateName = 'COUNT' | 'COUNTA' | 'SUM' | 'MIN' | 'MAX' | 'AVERAGE'

/** What the checker makes: every name resolved, every type known. */
export type Expr = { readonly type: Type } & (
	| { readonly kind: 'literal'; readonly value: Value }
	/** The row that the formula stands on: level 0 its own, level 1 the row inside a FILTER, and so on. */
	| { readonly kind: 'this'; readonly level: number }
	/** The looker's own row, or a column of it. `row`: whose it is, once that was settled. */
	| { readonly kind: 'me'; readonly table: Table; readonly column: Column | undefined; readonly row?: number | null }
	| { readonly kind: 'field'; readonly of: Expr; readonly table: Table; readonly column: Column }
	| { readonly kind: 'children'; readonly of: Expr; readonly backReference: BackReference }
	| { readonly kind: 'filter'; readonly rows: Expr; readonly level: number; readonly where: Expr }
	| {
			readonly kind: 'sort'
			readonly rows: Expr
			readonly level: number
			readonly key: Expr
			readonly falling: boolean
	  }
	/** The first row of a set of rows, or the first value of a set of values; blank if there is none. */
	| { readonly kind: 'first'; readonly set: Expr }
	| { readonly kind: 'each'; readonly rows: Expr; readonly level: number; readonly item: Expr }
	/** Values written out: `{1; 2; 3}`, or the parts of a call that takes any number of them. */
	| { readonly kind: 'list'; readonly items: readonly Expr[] }
	| {
			readonly kind: 'aggregate'
			readonly name: AggregateName
			readonly args: readonly Expr[]
			/** Where it lies in the row already. */
			readonly rollup?: Rollup
	  }
	| { readonly kind: 'arithmetic'; readonly op: ArithmeticOp; readonly left: Expr; readonly right: Expr }
	| { readonly kind: 'negate'; readonly arg: Expr }
	| { readonly kind: 'join'; readonly left: Expr; readonly right: Expr }
	/** The text form of a number, yes/no or date. */
	| { readonly kind: 'totext'; readonly arg: Expr }
	| { readonly kind: 'compare'; readonly op: CompareOp; readonly left: Expr; readonly right: Expr }
	| { readonly kind: 'in'; readonly item: Expr; readonly list: readonly Expr[] }
	| { readonly kind: 'and' | 'or'; readonly args: readonly Expr[] }
	| { readonly kind: 'not'; readonly arg: Expr }
	| { readonly kind: 'if'; readonly test: Expr; readonly then: Expr; readonly else: Expr }
	/** Catches every error, or only #N/A. */
	| { readonly kind: 'iferror'; readonly only: 'any' | 'na'; readonly arg: Expr; readonly else: Expr }
	| { readonly kind: 'iserror'; readonly which: 'any' | 'err' | 'na'; readonly arg: Expr }
	| { readonly kind: 'errortype'; readonly arg: Expr }
	| { readonly kind: 'istype'; readonly which: 'number' | 'text'; readonly arg: Expr }
	| { readonly kind: 'isblank'; readonly arg: Expr }
	| { readonly kind: 'now'; readonly what: 'TODAY' | 'NOW' }
	| { readonly kind: 'call'; readonly fn: FunctionEntry; readonly args: readonly Expr[] }
	/** True for rows that were granted to the reader by name (a decision that was asked of them). Never written by hand. */
	| { readonly kind: 'granted'; readonly table: Table; readonly person: number; readonly column?: number }
)

/** A total over the rows that point to a row, kept in that row's place in the store: `formula/sql/rollups.ts`. */
export interface Rollup {
	readonly name: AggregateName
	readonly parent: Table
	readonly child: Table
	/** The column of the child by which it points. */
	readonly by: Column
	/** Which children count, each as a condition over the child at level 1. */
	readonly where: readonly Expr[]
	/** What is totalled; undefined where rows are counted. */
	readonly item: Column | undefined
	/** The columns of the child that decide, with `item`. */
	readonly reads: readonly Column[]
	/** The beginning of the names of its places in the parent: `c17t0`. */
	readonly place: string
}

export type ExprKind = Expr['kind']

export type ParameterType = 'number' | 'text' | 'date' | 'time' | 'yesno' | 'numbers' | 'texts' | 'dates'

export interface Parameter {
	readonly name: string
	readonly type: ParameterType
	/** What stands in where it is left out; a parameter without this must be given. */
	readonly otherwise?: Plain | readonly Plain[]
	/** Takes every part from here on, as one set. */
	readonly rest?: boolean
}

/** What a function gets for a parameter: a value, or the values of a set. */
export type Given = Plain | readonly Plain[]

export interface FunctionNote {
	readonly name: string
	/** As it is written: `ROUND(number; [places])`. */
	readonly signature: string
	readonly family: Family
	readonly doc: string
	readonly examples: readonly (readonly [formula: string, shows: string])[]
}

export type Family = 'logic' | 'numbers' | 'text' | 'dates' | 'totals' | 'money over time' | 'sets'

/**
 * A function on values and sets of values, without laziness.
 * Its one TypeScript body is registered with the database, so both lives run the same code; `functions/define.ts` calls it.
 */
export interface FunctionEntry extends FunctionNote {
	readonly parameters: readonly Parameter[]
	readonly result: 'number' | 'text' | 'date' | 'datetime' | 'duration' | 'yesno'
	/** False when no arguments within their types can make it fail. */
	readonly canFail: boolean
	readonly evaluate: (...args: Given[]) => Value
	/** The same as plain SQL, where the database gives the same to the last bit. */
	readonly sql?: (...args: Sql[]) => Sql
	/** True where the result never falls as the first argument, a date, rises: then a condition on it is solved for the date. */
	readonly rises?: boolean
}

/** Whether a value is an error value, such as #DIV/0!. */
export function isErrorValue(value: unknown): value is ErrorValue {
	return typeof value === 'object' && value !== null && 'errorCode' in value
}
