/** What bringing a file into a table that is there would come to. */
export interface Comparison {
	/** Rows of the file. */
	readonly rows: number
	readonly added: number
	readonly changed: number
	readonly same: number
	/** Rows of the table that the file does not have. */
	readonly missing: number
	/** Rows of the file that are left out: their key stands there more than once, or is blank. */
	readonly repeated: number
	readonly keyless: number
	/** Values of references for which no row was found; those cells stay as they are. */
	readonly unfound: readonly { readonly column: string; readonly text: string; readonly rows: number }[]
	readonly samples: {
		readonly changed: readonly ComparedRow[]
		readonly added: readonly string[]
		readonly missing: readonly string[]
		readonly repeated: readonly string[]
	}
}

export interface ComparedRow {
	readonly label: string
	readonly cells: readonly { readonly column: string; readonly from: string; readonly to: string }[]
}

export interface Merged {
	readonly added: number
	readonly changed: number
	readonly removed: number
	/** Rows that did not fit, with what was said of each: the first of them, and how many there are. */
	readonly misfits: readonly Misfit[]
	readonly misfitCount: number
}

/** A row that did not go in, or does not go back, and why. */
export interface Misfit {
	readonly label: string
	readonly message: string
}
