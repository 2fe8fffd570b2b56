/**
 * By what a page and the server tell whether they have the same of a screen. Apart from the schema of what is asked, which a page
 * has no use for and which weighs as much as the rest of it.
 */
import type { WirePage, WireRow } from '../query/wire.ts'
import { fingerprint } from '../text/fingerprint.ts'
import type { ShownLine, ShownList, ShownScreen } from './screens.ts'

/** As many rows as one question may ask for. */
export const MOST_AT_ONCE = 1_000

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
