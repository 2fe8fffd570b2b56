/** What a page is told of a file that was given in: what is in it, and how far bringing it in has come. */
import { z } from 'zod'
import type { Kinds, Pair, Sendable } from './pair.ts'
import type { Unread } from '../exchange/plan.ts'
import type { Comparison, Merged, Misfit } from '../exchange/comparison.ts'
import type { ColumnGuess } from '../exchange/guess.ts'
import type { NoRow } from '../exchange/no-rows.ts'

/** Looks at a file that was given in, begins to bring it in, puts compared rows into their table, or stops. */
export const importRequestSchema = z.discriminatedUnion('kind', [
	z.object({
		kind: z.literal('inspect'),
		sheet: z.string().max(200).optional(),
		headingRow: z.number().int().min(0).nullable().optional(),
		firstRow: z.number().int().min(0).optional(),
		overTwo: z.boolean().optional()
	}),
	/** `more`: other sheets of the file follow, so it stays here. The plan is read where the file is. */
	z.object({ kind: z.literal('start'), plan: z.unknown(), more: z.boolean().optional() }),
	z.object({ kind: z.literal('apply'), partly: z.boolean() }),
	z.object({ kind: z.literal('stop') })
])

export type ImportRequests = Kinds<typeof importRequestSchema, { inspect: Inspection & { readonly file: string } }>

/** Undoes the last bringing-in into a table. */
export const undoImportSchema = z.object({ undo: z.number().int() })
export type UndoImport = Pair<Sendable<z.input<typeof undoImportSchema>>, Undone>

export type ImportState =
	| { readonly state: 'given' }
	| {
			readonly state: 'running'
			readonly doing: 'reading' | Doing
			readonly done: number
			readonly of: number
	  }
	| {
			readonly state: 'done'
			readonly table: number
			readonly rows: number
			readonly unread: readonly Unread[]
			readonly unreadCount: number
	  }
	/** Nothing is in yet: this is what it would come to, and why it was refused, if it was. */
	| {
			readonly state: 'compared'
			readonly comparison: Comparison
			readonly unread: readonly Unread[]
			readonly unreadCount: number
			readonly refused?: { readonly message: string; readonly misfits: readonly Misfit[] }
	  }
	| ({ readonly state: 'merged'; readonly table: number } & Merged)
	| { readonly state: 'failed'; readonly message: string }

export type Doing = 'comparing' | 'trying' | 'bringing in' | 'taking out again'

export interface Inspection {
	readonly sheets: readonly string[]
	readonly sheet: string
	readonly headingRow: number | null
	readonly firstRow: number
	readonly overTwo: boolean
	readonly rowCount: number
	/** The first rows of the sheet, as they stand. */
	readonly head: readonly (readonly string[])[]
	readonly columns: readonly ColumnGuess[]
	/** Rows, as people count, with a quote in the wrong place: what comes after it may have run together. */
	readonly damaged: readonly number[]
	/** Rows that are no records: left out, unless they are kept. */
	readonly noRows: readonly NoRow[]
	/** Columns that are filled in the first row of a group only. */
	readonly groups: readonly number[]
	/** What of the sheet is left aside, in the reader's words. */
	readonly notes: readonly string[]
	/** The column by which a row is most likely known. */
	readonly label: number
	/** Lists of columns by which its rows can be told apart, the likeliest first. */
	readonly keys: readonly (readonly number[])[]
}

export interface Undone {
	readonly undone: number
	/** Rows that stay as they are, and why: the first of them, and how many there are. */
	readonly left: readonly Misfit[]
	readonly leftCount: number
}

export interface GivenImport {
	readonly id: string
	readonly name: string
	readonly size: number
}
