/** What an open screen asks while it is open: its lines anew, as far as they differ, and what a button gives. */
import { z } from 'zod'
import type { WirePage, WireRow } from '../query/wire.ts'
import { fingerprint } from '../text/fingerprint.ts'
import { heldSchema, rowIdSchema } from './cells.ts'
import type { Kinds } from './pair.ts'
import { narrowingSchema, type Given, type ShownLine, type ShownList, type ShownScreen } from './screens.ts'

const id = z.string().max(40)
const sign = z.string().max(20)
/** As many rows as one question may ask for. */
export const MOST_AT_ONCE = 1_000

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

export interface KnownLines {
	readonly known: Readonly<Record<string, string>>
	readonly lists: Readonly<Record<string, { readonly rows: readonly (readonly [string, string])[] }>>
}

/** The screen anew, where other lines are shown by now; else the lines that were looked at, as far as they differ. */
export type LinesAgain =
	| { readonly kind: 'whole'; readonly screen: ShownScreen }
	| { readonly kind: 'lines'; readonly lines: Readonly<Record<string, AgainLine>> }
export type AgainLine = 'same' | Exclude<ShownLine, ShownList> | (Omit<ShownList, 'page'> & AgainPage)

interface AgainPage {
	readonly id: string
	readonly page: Omit<WirePage, 'rows'> & { readonly rows: readonly AgainRow[] }
}
/** A row, or the id of one that is as it was. */
export type AgainRow = WireRow | string

/** The sign of a line; that of a list says nothing of its rows. */
export function signOfLine(line: ShownLine): string {
	return fingerprint(JSON.stringify(line.kind === 'list' ? { ...line, page: { ...line.page, rows: [] } } : line))
}

export function signOfRow(row: WireRow): string {
	return fingerprint(JSON.stringify(row))
}

/** What differs of a line from what is known of it. */
export function differing(line: ShownLine & { readonly id: string }, { known, lists }: KnownLines): AgainLine {
	const isSame = known[line.id] === signOfLine(line)
	if (line.kind !== 'list') return isSame ? 'same' : line
	const before = lists[line.id]?.rows ?? []
	const signs = new Map(before)
	const rows = line.page.rows.map((row): AgainRow => {
		return signs.get(row.id) === signOfRow(row) ? row.id : row
	})
	const isWhole = rows.length === before.length && rows.every((row, i) => row === before[i]?.[0])
	return isSame && isWhole ? 'same' : { ...line, page: { ...line.page, rows } }
}
