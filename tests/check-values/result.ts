/** One row of a table of check values, and what became of it. */
export interface RowResult {
	readonly id: string
	/** Undefined where the row holds. */
	readonly short: string | undefined
}
