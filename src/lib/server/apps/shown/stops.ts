/** The places of a map that are called at one after another, as far as one person sees them. */
import type { LineOf } from '$lib/core/app/lines/all.ts'
import type { Here } from '$lib/core/formula/check/check-call.ts'
import type { Stop } from '$lib/core/map/stops.ts'
import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
import { readRows } from '../../rows/read.ts'
import type { Actor } from '../../rights/rights-of-actor.ts'
import type { Store } from '../../store/store.ts'
import { conditionsOf } from './list.ts'

/** More places than these are said, and not shown. */
export const MOST_PLACES = 5_000
/** As many as one read gives. */
const AT_ONCE = 1_000

interface Reading {
	readonly actor: Actor
	readonly now: number
	readonly here: Here
}

type MapLine = LineOf<'map'>

/** Rows of a map that lie somewhere; `isCut`: whether there are more. */
export function rowsWithPlace(
	store: Store,
	line: MapLine,
	{ actor, now, here, columns, flags = [] }: Reading & { columns: readonly number[]; flags?: readonly string[] }
): { rows: readonly WireRow[]; isCut: boolean } {
	const asked = {
		...{ table: line.table, columns: [...new Set([...columns, line.at])], flags },
		...{ where: conditionsOf(line, here), here, limit: AT_ONCE },
		filters: [{ column: line.at, is: 'filled' as const, text: '' }]
	}
	const rows: WireRow[] = []
	let after: string | undefined
	do {
		const page = readRows(store, actor, { ...asked, after }, now)
		rows.push(...page.rows)
		after = page.next ?? undefined
	} while (after !== undefined && rows.length < MOST_PLACES)
	return { rows, isCut: after !== undefined }
}

/** Each with its number; without those of which that is kept back. */
export function stopsOf(store: Store, line: MapLine, reading: Reading): readonly Stop[] {
	const columns = line.order === null ? [] : [line.order]
	return rowsWithPlace(store, line, { ...reading, columns }).rows.flatMap((row) => {
		const number = numberIn(row, line.order)
		return number === undefined ? [] : [{ row: row.id, number }]
	})
}

/** Undefined where it is kept back. */
export function numberIn({ cells }: WireRow, column: number | null): number | null | undefined {
	if (column === null) return null
	const number = cells[cellKey(column)]
	return number === undefined || typeof number === 'number' ? number : null
}
