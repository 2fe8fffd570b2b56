/** What people are shown of a request that waits for a decision, or had one. */
import type { CaseState, Move } from '../signoff/moves.ts'
import type { ShownColumn } from './shown-column.ts'
import type { WirePage } from '../query/wire.ts'

export interface CaseSummary {
	readonly id: string
	readonly name: string
	readonly label: string
	readonly askedBy: string
	readonly askedAt: number
	readonly state: CaseState
	readonly decidedAt: number | null
}

/** Requests by what they have to do with whoever asks: that wait on them, that they decided, that they asked for. */
export interface CaseLists {
	readonly waiting: readonly CaseSummary[]
	readonly decided: readonly CaseSummary[]
	readonly asked: readonly CaseSummary[]
}

/** What the sheet of a row says of its request. */
export interface CaseOfRow {
	readonly state: CaseState
	readonly name: string
	readonly decider: string
	/** Epoch ms. */
	readonly decidedAt: number | null
	/** Blank for who is not concerned. */
	readonly comment: string
	/** Where it is read and decided; null for who is not concerned. */
	readonly link: string | null
}

export interface CaseSheet extends CaseSummary {
	readonly decider: string
	readonly comment: string
	readonly columns: readonly ShownColumn[]
	readonly row: WirePage['rows'][number] | null
	readonly children: readonly {
		readonly name: string
		readonly columns: readonly ShownColumn[]
		readonly rows: WirePage['rows']
	}[]
	readonly moves: readonly Move[]
	readonly fingerprint: string
	readonly events: readonly {
		readonly at: number
		readonly who: string
		readonly what: string
		readonly comment: string
	}[]
}
