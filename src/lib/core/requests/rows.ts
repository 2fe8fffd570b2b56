/** What pages are told of rows: a block of changes, the values of a column, the history of a row. */
import { z } from 'zod'
import { cellChangesSchema, rowIdSchema } from './cells.ts'
import type { Pair, Sendable } from './pair.ts'
import type { Changed, Conflict } from '../query/change.ts'
import type { Attachment } from '../capture/attachment.ts'
import type { WireCell, WireRow } from '../query/wire.ts'

const rowChangeSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('add'), cells: cellChangesSchema }),
	z.object({ kind: z.literal('change'), row: rowIdSchema, cells: cellChangesSchema }),
	z.object({ kind: z.literal('remove'), row: rowIdSchema }),
	z.object({ kind: z.literal('restore'), row: rowIdSchema })
])

const blockSchema = z.object({
	kind: z.literal('block'),
	changes: z.array(rowChangeSchema).min(1).max(10_000),
	/** Whether what fits goes in where some of it does not. */
	partly: z.boolean()
})

/** A change from the grid: a cell, a new row, a removal, taking one of these back; or a whole block. */
export const rowRequestSchema = z.union([blockSchema, rowChangeSchema])

export type RowRequests =
	Pair<Sendable<z.input<typeof blockSchema>>, BlockChanged> | Pair<Sendable<z.input<typeof rowChangeSchema>>, Changed>

/** Rows that a reference may name, by the start of their label. */
export interface Option {
	readonly id: string
	readonly label: string
}

/** A table as it was at the end of a day. */
export interface PastPage {
	readonly rows: readonly PastRow[]
	/** How many fit in all. */
	readonly count: number
	/** The columns of which that is known, and that this reader can see on some rows. */
	readonly columns: readonly number[]
	/** Whether there are more rows than are looked through: then it is of the first of them. */
	readonly isCut: boolean
}

export interface PastRow extends WireRow {
	/** The columns in which something else stands today. */
	readonly since: readonly number[]
}

/** How many rows a listing finds, and where pages of it may start. */
export interface Anchors {
	readonly count: number
	readonly anchors: readonly string[]
}

/** A file that was taken in for a cell: the token puts it there, by its giver alone. */
export interface TakenFile {
	readonly token: string
	readonly file: Attachment
}

export interface BlockChanged {
	/** In the order of what was asked; undefined for those that did not go in. */
	readonly changed: readonly (Changed | undefined)[]
	readonly misfits: readonly Misfit[]
	/** The rows as this person sees them now, in the same order; only for the first thousand. */
	readonly rows: readonly (WireRow | undefined)[]
}

/** A change, or one cell of it, that did not go in. */
export interface Misfit {
	/** Its place among the changes that were asked. */
	readonly at: number
	readonly column: number | undefined
	readonly message: string
	/** What stands there and what was sent, where somebody else was faster. */
	readonly conflict?: Conflict
}

export interface Group {
	readonly value: WireCell
	/** The first value past the group, for a step of numbers. */
	readonly before?: number
	readonly rows: number
}

export interface Groups {
	/** Values one by one; numbers in steps; dates by month or year. */
	readonly by: 'value' | 'step' | 'month' | 'year'
	readonly rows: number
	readonly blank: number
	/** Rows whose cell is kept from this reader. */
	readonly unseen: number
	/** How many different values there are. */
	readonly values: number
	readonly least: WireCell
	readonly most: WireCell
	readonly mean: number | null
	readonly groups: readonly Group[]
}

export interface HistoryEntry {
	readonly at: number
	readonly who: string
	readonly through: string
	readonly kind: string
	readonly cells: readonly { readonly name: string; readonly from: string; readonly to: string }[]
}
