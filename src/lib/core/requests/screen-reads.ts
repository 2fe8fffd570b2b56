/** What an open screen asks while it is open: its lines anew, as far as they differ, and what a button gives. */
import { z } from 'zod'
import { heldSchema, rowIdSchema } from './cells.ts'
import type { Kinds } from './pair.ts'
import { MOST_AT_ONCE, type LinesAgain } from './screen-signs.ts'
import { narrowingSchema, type Given } from './screens.ts'

const id = z.string().max(40)
const sign = z.string().max(20)
export const screenReadSchema = z.discriminatedUnion('kind', [
	z.object({
		kind: z.literal('again'),
		/** The tables that changed; null where anything may have. */
		tables: z.array(z.number().int()).max(1_000).nullable(),
		/** Of the app, by which its lines are shown. */
		release: z.number().int().nullable(),
		/** The signs of the lines that are shown. */
		known: z.record(id, sign),
		/** Of each list, what it is narrowed down to and the rows that are shown, each with its sign. */
		lists: z.record(
			id,
			z.object({ narrowing: narrowingSchema, rows: z.array(z.tuple([rowIdSchema, sign])).max(MOST_AT_ONCE) })
		),
		row: rowIdSchema.optional(),
		held: heldSchema
	}),
	/** What a button gives the screen that it opens, or the one that it stands on. */
	z.object({ kind: z.literal('give'), line: id, row: rowIdSchema.optional(), held: heldSchema })
])
export type ScreenReads = Kinds<typeof screenReadSchema, { again: LinesAgain; give: Given }>
