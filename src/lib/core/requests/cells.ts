/** The shape of cells as they come in. What they mean is decided at the door. */
import { z } from 'zod'
import { MOST_HELD_TEXT } from '../app/held-text.ts'

const plain = z.union([z.null(), z.number(), z.string().max(100_000), z.boolean()])
const rowId = z.string().max(64)

const cellInput = z.union([
	plain,
	z.object({ id: rowId }),
	z.object({ match: z.string().max(2000) }),
	z.object({ file: z.string().max(100) })
])

const wireCell = z.union([
	plain,
	z.object({ id: rowId, label: z.string() }),
	z.object({ hidden: z.literal(true) }),
	z.object({ error: z.string() }),
	z.object({
		file: z.object({ name: z.string(), type: z.string(), size: z.number(), sha: z.string() })
	})
])

export const cellChangesSchema = z
	.array(z.object({ column: z.number().int(), value: cellInput, was: wireCell.optional() }))
	.max(500)
	// A key that is absent is not the same as one that is undefined.
	.transform((cells) => cells.map(({ was, ...cell }) => (was === undefined ? cell : { ...cell, was })))

export const rowIdSchema = rowId
export const lineIdSchema = z.string().max(40)

/** What a screen holds, as text, by the names that its lines give it; a row by its id. */
export const heldSchema = z.record(z.string().max(60), z.string().max(MOST_HELD_TEXT)).default({})
