/** What the Bench is told of the tables and the apps of a workspace. */
import { z } from 'zod'
import type { Kinds, Pair, Sendable } from './pair.ts'
import type { ChangedPart } from '../app/compare-versions.ts'
import type { Finding } from '../document/findings.ts'
import type { AppDocument } from '../app/document.ts'
import { editSchema } from '../app/edits/edit.ts'
import type { ShownColumn } from './shown-column.ts'

/** In letters: more than any app has come to. */
const MOST_DOCUMENT = 5_000_000

/** What a builder changed in the draft of an app, and the version that it was changed in. No edit only asks for what others did. */
export const draftSchema = z.object({ version: z.number().int(), edits: z.array(editSchema).max(10_000) })
export type SaveDraft = Pair<Sendable<z.input<typeof draftSchema>>, SavedDraft>

/** The document of an app as a file: what putting it in would change, putting it in, and what the check finds in the draft. */
export const documentSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('compare'), text: z.string().max(MOST_DOCUMENT) }),
	z.object({ kind: z.literal('put'), text: z.string().max(MOST_DOCUMENT) }),
	z.object({ kind: z.literal('check') })
])
export type DocumentRequests = Kinds<
	typeof documentSchema,
	{ compare: ComparedDocument; put: SavedDraft; check: readonly Finding[] }
>

/** Whose a screen becomes by a release, and whose it is no more; by name. */
export interface ScreenChange {
	readonly title: string
	readonly gains: readonly string[]
	readonly loses: readonly string[]
}

/** How a screen was used in one week. */
export interface ScreenUse {
	/** Its Monday, as an ISO date. */
	readonly week: string
	readonly screen: string
	/** How often people with an account opened it, and how many they were; null where they were fewer than five. */
	readonly times: number | null
	readonly people: number | null
	/** How often it was opened by who came without an account. */
	readonly byVisitors: number
}

/** A release at a set time. */
export interface PlannedRelease {
	/** Epoch ms. */
	readonly at: number
	readonly by: string
	readonly note: string
	/** Of the draft. */
	readonly version: number
}

export interface ComparedDocument {
	/** What putting it in would change, in sentences. */
	readonly parts: readonly ChangedPart[]
	/** As this program reads it. */
	readonly document: AppDocument
}

export interface SavedDraft {
	readonly version: number
	/** The draft as it is now, where others have changed it since that version. */
	readonly document: AppDocument | null
}

export interface AppSummary {
	readonly id: number
	readonly name: string
	readonly about: string
	readonly colour: AppDocument['colour']
	readonly icon: AppDocument['icon']
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
