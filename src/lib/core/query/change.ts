/** Changes as they travel to the door, and what it answers. */
import type { Plain } from '../model/formula.ts'
import type { WireCell } from './wire.ts'

export type CellInput =
	| Plain
	/** A row that the person chose. */
	| { readonly id: string }
	/** A row by its label, as when typed or pasted. */
	| { readonly match: string }
	/** A file: by the token that its giver got, or by its SHA-256 where this very cell held it before. */
	| { readonly file: string }

export interface CellChange {
	readonly column: number
	readonly value: CellInput
	/** What the person saw before; left out where nothing was seen. */
	readonly was?: WireCell
}

/** A reference to a row that goes in together with this one, by its place among the changes. No page may say so. */
export interface JoinedCell {
	readonly column: number
	readonly value: { readonly added: number }
}

export type Change =
	| { readonly kind: 'add'; readonly table: number; readonly cells: readonly (CellChange | JoinedCell)[] }
	| { readonly kind: 'change'; readonly table: number; readonly row: string; readonly cells: readonly CellChange[] }
	| { readonly kind: 'remove'; readonly table: number; readonly row: string }
	/** Brings a removed row back from the bin. */
	| { readonly kind: 'restore'; readonly table: number; readonly row: string }

/** A cell that somebody else changed meanwhile. What was typed is kept by whoever asked. */
export interface Conflict {
	readonly column: number
	readonly theirs: WireCell | undefined
	readonly yours: CellInput
}

export interface Changed {
	readonly row: string
	readonly rev: number
	readonly conflicts: readonly Conflict[]
}
