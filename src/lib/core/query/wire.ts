/** Rows as they travel to whoever may see them. A cell that is not seen is absent, not blank. */
import type { Attachment } from '../capture/attachment.ts'
import type { Plain } from '../model/formula.ts'

export type WireCell =
	| Plain
	/** A reference: the id of its target and the label under which the reader knows it. */
	| { readonly id: string; readonly label: string }
	/** A reference to a row that the reader may not see. */
	| { readonly hidden: true }
	| { readonly error: string }
	/** What lies in the cell; its bytes are fetched apart, through the door again. */
	| { readonly file: Attachment }

export interface WireRow {
	readonly id: string
	readonly rev: number
	/** By column, as `c17`. */
	readonly cells: Readonly<Record<string, WireCell>>
	/** The flags that hold for it, by their place among those that were asked for. */
	readonly flags?: readonly number[]
	/** What the reader may do with this row, where that was asked for. */
	readonly may?: { readonly change: readonly number[]; readonly remove: boolean }
}

export interface WirePage {
	readonly rows: readonly WireRow[]
	/** Where the next page starts; null at the end. */
	readonly next: string | null
	/** The columns that this reader can see on some rows, in the table's order. */
	readonly columns: readonly number[]
	/** A total that is worked out for each reader, by which so many rows cannot be ordered: they stand as if it were not asked. */
	readonly unsorted?: number
}

/** The key of a cell in a row on the wire. */
export function cellKey(column: number): string {
	return `c${column}`
}

export function isReferenceCell(cell: WireCell | undefined): cell is { id: string; label: string } {
	return typeof cell === 'object' && cell !== null && 'id' in cell
}

/** A reference whose target the reader does not see. */
export function isHiddenCell(cell: WireCell | undefined): cell is { hidden: true } {
	return typeof cell === 'object' && cell !== null && 'hidden' in cell
}

/** A computed cell in error, by the name of the error. */
export function isErrorCell(cell: WireCell | undefined): cell is { error: string } {
	return typeof cell === 'object' && cell !== null && 'error' in cell
}

export function isFileCell(cell: WireCell | undefined): cell is { file: Attachment } {
	return typeof cell === 'object' && cell !== null && 'file' in cell
}
