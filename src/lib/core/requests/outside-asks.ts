/** What somebody outside is asked, by a link of their own. */
export interface OutsideAsk {
	readonly workspace: string
	readonly subject: string
	readonly body: string
	readonly columns: readonly OutsideEntry[]
	/** Epoch ms; null where it has no end. */
	readonly endsAt: number | null
}

export interface OutsideEntry {
	readonly id: number
	readonly name: string
	/** How it is filled in. */
	readonly as: 'line' | 'lines' | 'number' | 'date' | 'choice'
	readonly unit: string
	/** Of a choice, what may be chosen. */
	readonly choices: readonly string[]
	/** As it stands, as text. */
	readonly value: string
}
