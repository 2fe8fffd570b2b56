/** Where the rows of a table lie, as far as a builder sees that: for what is drawn under them. */
import { readPlace, type Place } from '$lib/core/map/mercator.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'

/** As many as tell where a map is. */
const MOST = 1_000

export function placesIn(store: Store, { table: id, actor, now }: ByActor & { table: number }): Place[] {
	refuseUnlessBuilder(store, actor)
	const table = store.workspace().catalogue.tables.get(id)
	const columns = (table?.columns ?? []).flatMap((column) => (column.type === 'place' ? [column.id] : []))
	if (columns.length === 0) return []
	const { rows } = readRows(store, actor, { table: id, columns, limit: MOST }, now)
	return rows.flatMap(({ cells }) =>
		columns.flatMap((column) => {
			const cell = cells[cellKey(column)]
			return (typeof cell === 'string' && readPlace(cell)) || []
		})
	)
}
