/** What the logbook's page is told. */
export interface LogEntry {
	readonly seq: number
	readonly at: number
	readonly who: string
	readonly through: string
	readonly kind: string
	readonly table: string
	/** What it was about: a name, a role, a file. */
	readonly about: string
	readonly seal: string
}

export interface LogPage {
	readonly entries: readonly LogEntry[]
	/** Entries before this one are asked for with it; null where there are none. */
	readonly next: number | null
	/** The number and seal of the last entry: written down elsewhere, they prove that nothing was made anew. */
	readonly head: { readonly seq: number; readonly seal: string } | null
}

/** The first entry that does not fit its seal, if there is one, and how many there are. */
export interface SealCheck {
	readonly broken: number | null
	readonly entries: number
}
