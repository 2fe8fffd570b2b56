import type { LineOf } from '$lib/core/app/lines/all.ts'
import { MOST_SIGNS } from '$lib/core/app/lines/map.ts'
import { readPlace } from '$lib/core/map/mercator.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
import type { ShownPoint } from '$lib/core/requests/shown-rows.ts'
import { countRows, readRows } from '../../rows/read.ts'
import { COUNT_LIMIT, conditionsOf } from './list.ts'
import { marksOf, marksShown, opensFor, seenColumn, seenColumns } from './rows-of-line.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

type MapLine = LineOf<'map'>

/** More than these are said, and not shown. */
const MOST_PLACES = 5_000
/** As many as one read gives. */
const AT_ONCE = 1_000

export const map: ShownAs<MapLine> = {
	holdsSomething: (line, view) => placesOf(line, view) !== undefined,
	show(line, view) {
		const places = placesOf(line, view)
		if (!places) return []
		const { table, at, by } = places
		const { store, request, here } = view
		const signs = by ? (by.choices ?? []).slice(0, MOST_SIGNS) : []
		const { rows, isCut } = rowsWithPlace(line, places, view)
		const asked = { table: table.id, where: conditionsOf(line, here), here }
		const blank = [{ column: at.id, is: 'blank' as const, text: '' }]
		return [
			{
				...{ id: line.id, kind: 'map', title: table.name, signs, isCut },
				points: rows.flatMap((row) => pointOf(row, places, signs) ?? []),
				columns: seenColumns(line.columns, table, view),
				marks: marksShown(line),
				opens: opensFor(line, view),
				ground: line.ground?.sha ?? null,
				nowhere: countRows(
					store,
					request.actor,
					{ ...asked, columns: [], filters: blank, limit: COUNT_LIMIT },
					request.now
				)
			}
		]
	}
}

interface Places {
	readonly table: Table
	readonly at: Column
	/** None where its reader does not see it: then all have one sign. */
	readonly by: Column | undefined
}

function placesOf({ table: number, at: id, by }: MapLine, view: View): Places | undefined {
	const table = tableOf(view, number)
	const at = table && seenColumn(id, table, view)
	return at && { table, at, by: seenColumn(by, table, view) }
}

function rowsWithPlace(
	line: MapLine,
	{ at, by }: Places,
	{ store, request, here }: View
): { rows: readonly WireRow[]; isCut: boolean } {
	const asked = {
		...{ table: line.table, columns: [...new Set([...line.columns, at.id, ...(by ? [by.id] : [])])] },
		...{ where: conditionsOf(line, here), here, limit: AT_ONCE },
		filters: [{ column: at.id, is: 'filled' as const, text: '' }],
		flags: marksOf(line).map(({ where }) => where)
	}
	const rows: WireRow[] = []
	let after: string | undefined
	do {
		const page = readRows(store, request.actor, { ...asked, after }, request.now)
		rows.push(...page.rows)
		after = page.next ?? undefined
	} while (after !== undefined && rows.length < MOST_PLACES)
	return { rows, isCut: after !== undefined }
}

/** Undefined where its place is kept back. */
function pointOf(row: WireRow, { at, by }: Places, signs: readonly string[]): ShownPoint | undefined {
	const place = row.cells[cellKey(at.id)]
	const read = typeof place === 'string' ? readPlace(place) : undefined
	const value = by && row.cells[cellKey(by.id)]
	const sign = typeof value === 'string' ? signs.indexOf(value) : -1
	return read && { row, at: [read.latitude, read.longitude], sign: sign < 0 ? null : sign }
}
