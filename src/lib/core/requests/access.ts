/** What builders are told of the lines of access to a table, and of who sees what by them. */
import { z } from 'zod'
import { rowIdSchema } from './cells.ts'
import type { Kinds, Pair, Sendable } from './pair.ts'
import type { Verb } from '../access/types.ts'
import { lineSchema, type LineEntry } from '../workspace/document.ts'
import type { Issue } from '../model/formula.ts'

/** Unsaved lines, to see what they would come to: unfinished ones among them. */
export const previewLinesSchema = z.object({ lines: z.array(z.unknown()).max(200) })
/** `version`: of the workspace that they were read from. */
export const saveLinesSchema = z.object({ lines: z.array(lineSchema).max(200), version: z.number().int() })
/** An example of who must, or must not, see a row. */
export const exampleSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('pin'), person: z.number().int(), row: rowIdSchema, sees: z.boolean() }),
	z.object({ kind: z.literal('unpin'), person: z.number().int(), row: rowIdSchema })
])

export type PreviewLines = Pair<Sendable<z.input<typeof previewLinesSchema>>, AccessSheet>
export type SaveLines = Pair<Sendable<z.input<typeof saveLinesSchema>>, void>
export type Examples = Kinds<typeof exampleSchema>

export interface WhoSees {
	/** The tables that the draft shows, with whether the builder keeps them. */
	readonly tables: readonly { readonly id: number; readonly name: string; readonly owned: boolean }[]
	/** The tables of which each person sees a row, or may add one, as far as the builder sees as much. */
	readonly people: readonly { readonly person: number; readonly tables: readonly number[] }[]
}

export interface MatrixCell {
	readonly seen: number
	/** What they may possibly do beside seeing. */
	readonly may: readonly Verb[]
	readonly keeps: boolean
}

export interface AccessMatrix {
	readonly tables: readonly { readonly id: number; readonly name: string }[]
	readonly people: readonly {
		readonly person: number
		readonly name: string
		readonly roles: readonly string[]
		/** One for each table, in its order. */
		readonly cells: readonly MatrixCell[]
	}[]
	/** How many people there are beside those. */
	readonly unlisted: number
}

export interface AccessReasons {
	readonly name: string
	/** What the door out says. */
	readonly seesRow: boolean
	/** Every column of the table, in its order. */
	readonly columns: readonly ColumnReason[]
	/** Rights that come from no line. */
	readonly besides: readonly ('keeper' | 'asked' | 'suspended')[]
	readonly lines: readonly LineReason[]
}

export interface ColumnReason {
	readonly name: string
	/** What the door out says. */
	readonly seen: boolean
	/** The numbers of the lines that let the row be seen with this column, and of those that let it be seen without. */
	readonly by: readonly number[]
	readonly without: readonly number[]
	/** Columns that it is worked out from and that are not seen here. */
	readonly needs: readonly string[]
}

export interface LineReason {
	readonly id: string
	/** Where it stands among the table's lines, from 1. */
	readonly number: number
	readonly role: string
	readonly verbs: readonly string[]
	readonly isHeld: boolean
	readonly fits: boolean
	/** What its condition read; a text is undefined where whoever asks may not see it. */
	readonly values: readonly { readonly name: string; readonly text: string | undefined }[]
	/** Names of the columns that it leaves out. */
	readonly leavesOut: readonly string[]
}

export interface ProposedAccess {
	readonly says: string
	readonly line: LineEntry
	readonly asksRole: boolean
	/** How many people it would let see how many rows each, at least and at most. */
	readonly comesTo?: { readonly people: number; readonly least: number; readonly most: number }
	/** Why it cannot be taken as things stand. */
	readonly refused?: string
}

export interface AccessSheet {
	readonly version: number
	readonly lines: readonly LineEntry[]
	readonly people: readonly PersonCount[]
	/** How many people there are beside those that were counted for. */
	readonly unlisted: number
	/** For each line: how many people hold its role, and the least and most rows that it gives one of them. */
	readonly comesTo: readonly {
		readonly id: string
		readonly people: number
		readonly least: number
		readonly most: number
	}[]
	readonly issues: readonly (Issue & { readonly line: string; readonly part: string })[]
	readonly examples: readonly ShownExample[]
}

export interface PersonCount {
	readonly person: number
	readonly name: string
	readonly roles: readonly string[]
	readonly seen: number
	readonly before: number
	readonly change: number
	/** Names of columns that this person sees on no row, and that they saw on none before. */
	readonly withheld: readonly string[]
	readonly withheldBefore: readonly string[]
}

export interface ShownExample {
	readonly person: number
	readonly name: string
	/** The row's id, as the outside knows it. */
	readonly row: string
	/** What the row is known by, to whoever asks. */
	readonly label: string
	readonly sees: boolean
	readonly holds: boolean
}
