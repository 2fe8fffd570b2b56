import type { LineOf } from '$lib/core/app/lines/all.ts'
import { MOST_SIGNS } from '$lib/core/app/lines/map.ts'
import { readPlace } from '$lib/core/map/mercator.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
import type { ShownPoint } from '$lib/core/requests/shown-rows.ts'
import { countRows } from '../../rows/read.ts'
import { COUNT_LIMIT, conditionsOf } from './list.ts'
import { marksOf, marksShown, opensFor, seenColumn, seenColumns } from './rows-of-line.ts'
import { numberIn, rowsWithPlace } from './stops.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

type MapLine = LineOf<'map'>

export const map: ShownAs<MapLine> = {
	holdsSomething: (line, view) => placesOf(line, view) !== undefined,
	show(line, view) {
		const places = placesOf(line, view)
		if (!places) return []
		const { table, at, by, order } = places
		const { store, request, here, standing } = view
		const signs = by ? (by.choices ?? []).slice(0, MOST_SIGNS) : []
		const { rows, isCut } = rowsWithPlace(store, line, {
			...{ actor: request.actor, now: request.now, here, flags: marksOf(line).map(({ where }) => where) },
			columns: [...line.columns, ...[by, order].flatMap((column) => column?.id ?? [])]
		})
		const asked = { table: table.id, where: conditionsOf(line, here), here }
		const blank = [{ column: at.id, is: 'blank' as const, text: '' }]
		return [
			{
				...{ id: line.id, kind: 'map', title: table.name, signs, isCut },
				points: rows.flatMap((row) => pointOf(row, places, signs) ?? []),
				columns: seenColumns(line.columns, table, view),
				marks: marksShown(line),
				opens: opensFor(line, view),
				order: order ? { name: order.name, canMove: standing.rights.mayPossibly('change', table, order) } : null,
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
	/** By what they are called at; none where its reader does not see it: then they have no order. */
	readonly order: Column | undefined
}

function placesOf({ table: number, at: id, by, order }: MapLine, view: View): Places | undefined {
	const table = tableOf(view, number)
	const at = table && seenColumn(id, table, view)
	return at && { table, at, by: seenColumn(by, table, view), order: seenColumn(order, table, view) }
}

/** Undefined where its place is kept back. */
function pointOf(row: WireRow, { at, by, order }: Places, signs: readonly string[]): ShownPoint | undefined {
	const place = row.cells[cellKey(at.id)]
	const read = typeof place === 'string' ? readPlace(place) : undefined
	const value = by && row.cells[cellKey(by.id)]
	const sign = typeof value === 'string' ? signs.indexOf(value) : -1
	return (
		read && {
			...{ row, at: [read.latitude, read.longitude], sign: sign < 0 ? null : sign },
			stop: numberIn(row, order?.id ?? null)
		}
	)
}
