/** What a formula comes to while it is written. */
import type { WireCell } from '../query/wire.ts'
import type { ShownColumn } from './shown-column.ts'
import { z } from 'zod'
import type { AccessReasons } from './access.ts'
import { rowIdSchema } from './cells.ts'
import type { Kinds } from './pair.ts'
import type { Issue } from '../model/formula.ts'

const table = z.number().int()
const text = z.string().max(10_000)
/** The tables of the rows around its own, the outermost first: with any it is only checked, since no row alone is its row. */
const around = z.array(table).max(2)

/** What the screen holds on which it stands, by name. */
const here = z
	.record(
		z.string().max(60),
		z.union([
			z.object({ table, column: z.number().int() }),
			z.object({ table }),
			z.object({ type: z.enum(['text', 'number', 'date', 'yesno']) })
		])
	)
	.default({})

/** A formula that is being written, or why somebody sees a row. */
export const trySchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('condition'), table, text, me: z.boolean(), around, here }),
	z.object({ kind: z.literal('formula'), table, text, around, here }),
	z.object({ kind: z.literal('why'), table, person: z.number().int(), row: rowIdSchema })
])

export type Tries = Kinds<typeof trySchema, { condition: FormulaTrial; formula: FormulaResult; why: AccessReasons }>

export interface FormulaTrial {
	readonly ok: boolean
	readonly issues: readonly Issue[]
	/** What it reads of its screen, by name: with any it is only checked, since nothing is chosen there yet. */
	readonly chosen?: readonly string[]
	/** For a condition: how many rows it holds for, of those that the builder sees. */
	readonly rows?: number
	readonly of?: number
	/** Some of the rows that it holds for, and some for which it does not, by their labels. */
	readonly samples?: RowSamples
	/** How many each of the asked people would see of them, as far as the builder sees as much. */
	readonly people?: readonly { readonly name: string; readonly rows: number }[]
	/** A column of People that the condition reads of whoever looks, and that the builder does not hold: then nobody is counted. */
	readonly unheld?: string
	/** How many rows it may have to look at for each row, where that is worth a word. */
	readonly looksAt?: number
}

export interface RowSamples {
	/** By which rows of the table are known. */
	readonly label: ShownColumn
	readonly inside: readonly WireCell[]
	readonly outside: readonly WireCell[]
}

export interface FormulaResult {
	readonly issues: readonly Issue[]
	readonly chosen?: readonly string[]
	readonly type?: string
	/** The row that it was tried on, and what it gives there. */
	readonly sample?: string
	readonly result?: string
	readonly dependsOn?: readonly string[]
	/** Functions that run as code registered with the database instead of SQL of its own. */
	readonly registered?: readonly string[]
	/** Kept in the row, or worked out when it is read. */
	readonly stored?: boolean
	/** How many of its totals lie in the row, brought up to date with each child. */
	readonly rollups?: number
	/** How many rows it may have to look at for each row, where that is worth a word. */
	readonly looksAt?: number
}
