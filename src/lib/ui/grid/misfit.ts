/** A cell that does not fit: where it stands, and why. */
export interface ShownMisfit {
	readonly place: string
	readonly message: string
}
