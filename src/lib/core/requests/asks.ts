/** What somebody is asked to fill in, as they may see it. */
import { z } from 'zod'
import type { Conflict } from '../query/change.ts'
import type { WireRow } from '../query/wire.ts'
import { cellChangesSchema, rowIdSchema } from './cells.ts'
import type { Pair, Sendable } from './pair.ts'
import type { ShownColumn } from './shown-column.ts'

export interface AskSummary {
	readonly id: string
	readonly subject: string
	/** The row that it is about, by its name. */
	readonly label: string
	/** Epoch ms. */
	readonly askedAt: number
	/** Until when an answer is awaited; null without end. */
	readonly endsAt: number | null
}

export interface AskSheet extends AskSummary {
	readonly body: string
	/** The number of the table of its row. */
	readonly table: number
	readonly row: WireRow
	/** The row's other columns that they see, but for that by which it is called. */
	readonly columns: readonly ShownColumn[]
	/** What is to be filled in. */
	readonly asked: readonly ShownColumn[]
}

export const answerSchema = z.object({ ask: rowIdSchema, cells: cellChangesSchema })
export type AnswerAsk = Pair<Sendable<z.input<typeof answerSchema>>, { readonly conflicts: readonly Conflict[] }>
