/**
 * The shapes that a formula passes through: syntax, typed tree, value.
 *
 * - A value is blank (`null`), a number, text, yes/no, or a fault. Dates are ISO 8601 text; only the type tells them from text.
 * - A row is known by its number inside the database; outside it never appears as one.
 */
import type { Column, Reverse, Table } from '../table/types.ts'

export interface Span {
	readonly from: number
	readonly to: number
}

export interface Issue {
	readonly code: string
	/** A sentence for the person who wrote the formula, with the next step. */
	readonly message: string
	readonly span: Span
}

export const FAULT_NAMES = ['', '', '#DIV/0!', '#VALUE!', '#REF!', '#NAME?', '#NUM!', '#N/A'] as const

/** The number that `ERROR.TYPE` gives for the error (OpenFormula 6.13.11, from memory). */
export type FaultCode = 2 | 3 | 4 | 5 | 6 | 7

export interface Fault {
	readonly fault: FaultCode
}

export const DIV_ZERO: Fault = { fault: 2 }
export const BAD_VALUE: Fault = { fault: 3 }
export const BAD_NUMBER: Fault = { fault: 6 }

export type Plain = null | number | string | boolean
export type Value = Plain | Fault

export type Type =
	| { readonly kind: 'number' | 'text' | 'yesno' | 'date' | 'datetime' | 'blank' | 'mixed' }
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
	| { readonly kind: 'me'; readonly column: Column }
	| { readonly kind: 'field'; readonly of: Expr; readonly table: Table; readonly column: Column }
	| { readonly kind: 'children'; readonly of: Expr; readonly reverse: Reverse }
	| { readonly kind: 'filter'; readonly rows: Expr; readonly level: number; readonly where: Expr }
	| { readonly kind: 'each'; readonly rows: Expr; readonly level: number; readonly item: Expr }
	| { readonly kind: 'aggregate'; readonly name: AggregateName; readonly args: readonly Expr[] }
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
	| { readonly kind: 'iferror'; readonly arg: Expr; readonly else: Expr }
	| { readonly kind: 'isblank'; readonly arg: Expr }
	| { readonly kind: 'now'; readonly what: 'TODAY' | 'NOW' }
	| { readonly kind: 'call'; readonly fn: FunctionEntry; readonly args: readonly Expr[] }
	/** True for rows that were granted to the reader by name (a decision that was asked of them). Never written by hand. */
	| { readonly kind: 'granted'; readonly table: Table; readonly person: number; readonly column?: number }
)

export type ExprKind = Expr['kind']

export interface Parameter {
	readonly name: string
	readonly type: 'number' | 'text' | 'date'
	readonly optional?: boolean
}

/**
 * A function that works on plain values only: no laziness, no sets.
 * Its one TypeScript body is registered with the database, so both lives run the same code.
 */
export interface FunctionEntry {
	readonly name: string
	readonly parameters: readonly Parameter[]
	readonly result: 'number' | 'text' | 'date' | 'yesno'
	readonly doc: string
	readonly examples: readonly (readonly [formula: string, shows: string])[]
	/** False when no arguments within their types can make it fail. */
	readonly canFail: boolean
	/** Blanks in numbers arrive as 0, in text as "", in dates as null (and the result is then blank). */
	readonly evaluate: (...args: Plain[]) => Value
}

export function isFault(value: unknown): value is Fault {
	return typeof value === 'object' && value !== null && 'fault' in value
}
