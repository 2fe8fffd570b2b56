/** What a page tells of the lines that it shows, and how what differs goes into their places. */
import { allLines, mapLines } from '$lib/core/app/lines/tree.ts'
import type { WireRow } from '$lib/core/query/wire.ts'
import { MOST_AT_ONCE, signOfLine, signOfRow, type AgainLine } from '$lib/core/requests/screen-signs.ts'
import type { Narrowing, ShownLine, ShownList, ShownScreen } from '$lib/core/requests/screens.ts'

/** What a list shows: the rows that were read so far, and what they are narrowed down to. */
export interface ListShows {
	readonly narrowing: Narrowing
	readonly rows: readonly WireRow[]
	/** Whether these are all. */
	readonly isWhole: boolean
}

/** By the list's line. */
export type Shows = ReadonlyMap<string, ListShows>

export function showsIn(
	lines: readonly ShownLine[],
	of: (line: ShownList & { readonly id: string }) => ListShows
): Shows {
	return new Map(allLines(lines).flatMap((line) => (line.kind === 'list' ? [[line.id, of(line)]] : [])))
}

export function knownOf(lines: readonly ShownLine[], shows: Shows) {
	return {
		known: Object.fromEntries(allLines(lines).map((line) => [line.id, signOfLine(line)])),
		lists: Object.fromEntries([...shows].map(([id, list]) => [id, signed(list)]))
	}
}

function signed({ narrowing, rows }: ListShows) {
	return { narrowing, rows: rows.slice(0, MOST_AT_ONCE).map((row): [string, string] => [row.id, signOfRow(row)]) }
}

/** The screen with the lines that differ in their places; the same object, where none does. */
export function mergeLines(shown: ShownScreen, again: Readonly<Record<string, AgainLine>>, shows: Shows): ShownScreen {
	const { screen } = shown
	if (!screen || Object.values(again).every((line) => line === 'same')) return shown
	const lines = mapLines<ShownLine>(screen.lines, (line) => inPlace(line, again[line.id], shows.get(line.id)?.rows))
	return { ...shown, screen: { ...screen, lines } }
}

/** Rows that are as they were stay the same objects. */
function inPlace(line: ShownLine, again: AgainLine | undefined, rows: readonly WireRow[] = []): ShownLine {
	if (again === undefined || again === 'same') return line
	if (again.kind !== 'list') return again
	const before = new Map(rows.map((row) => [row.id, row]))
	const now = again.page.rows.flatMap((row) => (typeof row === 'string' ? (before.get(row) ?? []) : row))
	return { ...again, page: { ...again.page, rows: now } }
}

/** The keys of the cells of a sheet that are otherwise than before, while it shows the same row. */
export function cellsThatDiffer(before: WireRow | null | undefined, now: WireRow | null): string[] {
	if (!before || !now || before.id !== now.id) return []
	const keys = new Set([...Object.keys(before.cells), ...Object.keys(now.cells)])
	return [...keys].filter((key) => JSON.stringify(before.cells[key]) !== JSON.stringify(now.cells[key]))
}

/** The ids of those that are new or otherwise than before; what only moved up from a further page is neither. */
export function rowsThatDiffer(
	{ rows, isWhole }: Pick<ListShows, 'rows' | 'isWhole'>,
	now: readonly WireRow[]
): string[] {
	const [same, known] = [new Set(rows), new Set(rows.map(({ id }) => id))]
	const last = now.findLastIndex(({ id }) => known.has(id))
	return now.filter((row, i) => !same.has(row) && (known.has(row.id) || isWhole || i < last)).map(({ id }) => id)
}
