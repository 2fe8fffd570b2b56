/** What the Bench is told of the tables and the apps of a workspace. */
import { z } from 'zod'
import type { Pair, Sendable } from './pair.ts'
import type { AppDocument } from '../app/document.ts'
import type { ShownColumn } from './shown-column.ts'

/** The draft of an app, whole, and the version it was made from. It is read as a document where it is saved. */
export const draftSchema = z.object({ version: z.number().int(), document: z.unknown() })
/** Answered with its new version. */
export type SaveDraft = Pair<Sendable<z.input<typeof draftSchema>>, number>

export interface AppSummary {
	readonly id: number
	readonly name: string
	readonly about: string
	readonly colour: AppDocument['colour']
	readonly live: number | null
	/** Whether the draft differs from what is live; known to builders. */
	readonly ahead: boolean
}

export interface BenchTable {
	readonly id: number
	readonly name: string
	readonly owned: boolean
	/** Who keeps it, by number; told to keepers only. */
	readonly keepers: readonly number[]
	/** Whether its rows are the workspace's people. */
	readonly people: boolean
	readonly label: number
	readonly rows: number
	/** Whether this person may add rows at all. */
	readonly mayAdd: boolean
	readonly columns: readonly ShownColumn[]
	readonly backReferences: readonly string[]
	readonly source: { readonly file: string; readonly sheet?: string; readonly at: number } | null
	/** Whether the last file went into rows that were there, and can be undone as a whole. */
	readonly undoable: boolean
	readonly about: string
	/** For keepers: what must hold of every row, and the columns that were taken out and can be put back. */
	readonly checks: readonly { readonly formula: string; readonly message: string }[]
	readonly removed: readonly { readonly id: number; readonly name: string; readonly at: number }[]
}
