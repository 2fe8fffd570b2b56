/** What builders are told before a table or a column changes. */
import { z } from 'zod'
import { COLUMN_TYPES } from '../model/table.ts'
import { columnSchema, tableSchema } from '../workspace/document.ts'
import type { Kinds } from './pair.ts'

const table = z.number().int()
// Vouching for a column is no part of making one, nor are rules, which are checked when they are written.
const newColumn = columnSchema.omit({ id: true, vouched: true, openAsMe: true, otherwise: true, numbering: true })
const columnWords = columnSchema
	.pick({ name: true, about: true, required: true, unique: true, unit: true, otherwise: true, numbering: true })
	.extend({ uniqueWithin: z.number().int(), onRemoval: columnSchema.shape.onRemoval })
	.extend({ reverseName: columnSchema.shape.reverseName, choices: columnSchema.shape.choices })
	.partial()
const tableWords = tableSchema.pick({ name: true, about: true, checks: true }).partial()
const of = { table, column: z.number().int() }

/** What a builder does to the structure of tables they keep, or asks before doing it. */
export const structureRequestSchema = z.discriminatedUnion('kind', [
	z.object({
		kind: z.literal('table'),
		name: z.string().trim().min(1, 'The table needs a name.').max(80),
		columns: z.array(newColumn).min(1).max(100)
	}),
	z.object({ kind: z.literal('column'), table, column: newColumn }),
	z.object({ kind: z.literal('change column'), ...of, words: columnWords }),
	z.object({ kind: z.literal('change table'), table, words: tableWords }),
	z.object({ kind: z.literal('keepers'), table, keepers: z.array(z.number().int()).max(50) }),
	z.object({ kind: z.literal('table uses'), table }),
	z.object({ kind: z.literal('remove table'), table }),
	z.object({ kind: z.literal('return table'), table }),
	z.object({ kind: z.literal('uses'), ...of }),
	z.object({ kind: z.literal('remove'), ...of }),
	z.object({ kind: z.literal('return'), ...of }),
	z.object({ kind: z.literal('would convert'), ...of, type: z.enum(COLUMN_TYPES) }),
	z.object({ kind: z.literal('convert'), ...of, type: z.enum(COLUMN_TYPES) }),
	z.object({ kind: z.literal('put back'), table, version: z.number().int() }),
	z.object({ kind: z.literal('formula'), ...of, formula: z.string().max(10_000) }),
	z.object({ kind: z.literal('label'), ...of }),
	z.object({ kind: z.literal('relations'), table }),
	z.object({ kind: z.literal('match'), ...of, to: z.number().int() }),
	z.object({
		kind: z.literal('reference'),
		...of,
		to: z.number().int(),
		fixes: z.array(z.tuple([z.string(), z.string()])).max(200)
	})
])

/** What of a column, or of a table, can be written anew without touching its values. */
export type ColumnWords = z.output<typeof columnWords>
export type TableWords = z.output<typeof tableWords>

/** What each kind makes or finds; nothing where it is not named. */
export interface StructureAnswers {
	/** The number of the new table, and that of a new column. */
	readonly table: number
	readonly column: number
	readonly 'table uses': TableRemoval
	/** Whether its lines of access came back with it. */
	readonly 'return table': { readonly lines: boolean }
	readonly uses: { readonly uses: readonly ColumnUse[]; readonly filled: number }
	readonly 'would convert': ConversionPreview
	/** How many cells could not be read. */
	readonly convert: number
	readonly relations: readonly Relation[]
	readonly match: MatchPreview
	/** How many cells name no row. */
	readonly reference: number
}

/** Each is answered with what it made, and the version of the workspace that it is in force with. */
export type StructureRequests = Kinds<
	typeof structureRequestSchema,
	{ [K in z.output<typeof structureRequestSchema>['kind']]: Done<K> }
>

interface Done<K> {
	readonly made: MadeBy<K>
	readonly version: number
}

export type MadeBy<K> = K extends keyof StructureAnswers ? StructureAnswers[K] : void

export interface ConversionPreview {
	readonly read: number
	readonly blank: number
	readonly unread: readonly { readonly text: string; readonly rows: number }[]
}

export interface Relation {
	readonly table: number
	readonly tableName: string
	readonly column: number
	readonly columnName: string
	readonly to: number
	readonly toName: string
	/** Different values that name a row, and those that name none. */
	readonly found: number
	readonly lost: number
}

export interface ColumnUse {
	/** As a person would call it: `Screen Today`, `A line of access to Moorings`. */
	readonly place: string
	/** Whether it cannot do without the column, so that it must be changed before the column can go. */
	readonly needs: boolean
}

export interface MatchPreview {
	readonly matched: number
	readonly blank: number
	readonly unmatched: readonly { readonly text: string; readonly rows: number }[]
	/** By what the rows will be known, where they were known by this column: another's name, or numbers of their own. */
	readonly knownBy?: string
}

export interface TableRemoval {
	readonly rows: number
	/** What names it, so that it cannot go yet. */
	readonly uses: readonly string[]
}
