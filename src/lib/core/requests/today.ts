/** What somebody did today, as they read it. */
import type { HistoryEntry } from './rows.ts'

export interface DoneToday {
	/** The number of its entry, by which it is taken back. */
	readonly entry: number
	/** Epoch ms. */
	readonly at: number
	readonly kind: 'add' | 'change' | 'remove'
	readonly through: string
	readonly table: string
	/** What the row is known by; blank where it is not seen any more. */
	readonly label: string
	readonly cells: HistoryEntry['cells']
	readonly state: 'can be taken back' | 'taken back' | 'stays'
}
