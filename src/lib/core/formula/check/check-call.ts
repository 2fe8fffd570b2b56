import type { Catalogue, Column, Table } from '../../model/table.ts'
import { Refused, type Part } from './convert.ts'
import * as issue from '../syntax/issues.ts'
import type { Expr, Plain, Span, Syntax, Type, Value } from '../../model/formula.ts'

export interface Scope {
	readonly catalogue: Catalogue
	/** The tables whose rows are in reach, outermost first; none for a formula that stands on no row. */
	readonly rows: readonly Table[]
	/** Whether somebody is looking, so that `me` has a meaning. */
	readonly me: boolean
	/** A row around the one in reach whose values are known already: `this` reads them as constants. */
	readonly given?: GivenRow | undefined
	/** What the screen around it holds, by name: `here.mooring` reads it as a constant. */
	readonly here?: Here | undefined
	/** Told of every name that was resolved, for renaming and for what a formula depends on. */
	readonly onName?: (use: NameUse) => void
}

/** By the names that lines give them; a row by its number. */
export type Here = ReadonlyMap<string, HeldValue>

/** What a screen holds: a chosen row, or something typed; blank until somebody chooses. */
export interface HeldValue {
	readonly type: Type
	readonly value: Plain
}

export interface GivenRow {
	readonly table: Table
	/** Blank for what is not known of it. */
	readonly value: (column: Column) => Value
	/** Its number, blank where it is not seen; left out of one that is still to be added. */
	readonly row?: () => number | null
}

/** A name in a formula's text, and what it means. */
export type NameUse = { readonly span: Span } & (
	| { readonly kind: 'column'; readonly table: number; readonly column: number }
	/** Seen from its target, by the reference that it is the back-reference of. */
	| { readonly kind: 'backReference'; readonly table: number; readonly column: number }
)

/** A call that becomes a node of its own, with the way to check its parts. */
export interface Call {
	readonly tree: Syntax & { kind: 'call' }
	readonly scope: Scope
	check(arg: Syntax, inner?: Scope): Expr
	part(arg: Syntax, what: string, inner?: Scope): Part
}

export type CheckCall = (call: Call) => Expr

/** Refuses a call with too few or too many parts; else gives the first of them. */
export function countArguments(tree: Syntax & { kind: 'call' }, least: number, most: number): Syntax {
	const got = tree.args.length
	if (got < least || got > most) {
		const wanted = least === most ? (least === 1 ? '1 part' : `${least} parts`) : `${least} to ${most} parts`
		throw new Refused(issue.wrongCount(tree.name, wanted, got, tree.span))
	}
	return tree.args[0] ?? tree
}

/** The argument at a place that was counted before. */
export function argumentAt(tree: Syntax & { kind: 'call' }, i: number): Syntax {
	const arg = tree.args[i]
	if (!arg) throw new Error(`Expected "${tree.name}" to have an argument ${i}, got ${tree.args.length}`)
	return arg
}
