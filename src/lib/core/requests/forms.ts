/** What a form asks while somebody fills it in: what its conditions come to, and what may be chosen. */
import { z } from 'zod'
import type { CellChange } from '../query/change.ts'
import { cellChangesSchema, heldSchema, rowIdSchema } from './cells.ts'
import type { Kinds } from './pair.ts'
import type { Option } from './rows.ts'

const id = z.string().max(40)
const MOST_ROWS = 200

/** Rows that go in with the form's own, by the line that asks for them. */
export const itemsSchema = z.record(id, z.array(cellChangesSchema).max(MOST_ROWS)).default({})

/** What was filled in so far. `row`: the row that the screen shows, for a form that belongs to it. */
const typed = {
	...{ line: id, cells: cellChangesSchema, items: itemsSchema },
	...{ row: rowIdSchema.optional(), held: heldSchema }
}

export const formRequestSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('judge'), ...typed }),
	/** `entry`: whose choices; `own`: the cells of the row that it stands in, where that is one of a group. */
	z.object({ kind: z.literal('choices'), ...typed, entry: id, starts: z.string().max(200), own: cellChangesSchema })
])
export type FormRequests = Kinds<typeof formRequestSchema, { judge: FormVerdict; choices: readonly Option[] }>

export interface FormTyped {
	readonly cells: readonly CellChange[]
	readonly items: Readonly<Record<string, readonly (readonly CellChange[])[]>>
}

/** What the conditions of a form come to on one row that is being filled in, by the ids of its entries. */
export interface RowVerdict {
	readonly unasked: readonly string[]
	readonly must: readonly string[]
	/** With the builder's words. */
	readonly refused: Readonly<Record<string, string>>
	/** Values that are worked out, as they are read. */
	readonly shown: Readonly<Record<string, string>>
}

export interface FormVerdict extends RowVerdict {
	readonly items: Readonly<Record<string, ItemsVerdict>>
}

export interface ItemsVerdict {
	readonly rows: readonly RowVerdict[]
	/** What its rows come to together, of each value shown that is a number. */
	readonly sums: Readonly<Record<string, string>>
}
