/** What a list shows in the Lookout while its table is empty, to the keeper who builds for it. */
import { cellKey, type WirePage, type WireRow } from '$lib/core/query/wire.ts'
import type { Table } from '$lib/core/model/table.ts'
import { localDate } from '$lib/core/schedule/zone.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { readRows } from '../../rows/read.ts'
import { SAMPLES, sampleCell } from './sample-values.ts'
import type { View } from './view.ts'

/** None where there is a row, whoever sees it: that there is none is known to keepers alone. */
export function samplesFor(table: Table, page: WirePage, { store, request }: View): WireRow[] {
	const { actor, now } = request
	const looker = actor.lookedAtBy
	if (looker === undefined || page.rows.length > 0 || !table.keepers.includes(looker)) return []
	const whole = readRows(store, { person: looker }, { table: table.id, columns: [], limit: 1 }, now)
	if (whole.rows.length > 0) return []
	const day = localDate(new Date(now).toISOString(), store.workspace().document.timeZone)
	const columns = describeColumns(table, page.columns)
	return Array.from({ length: SAMPLES }, (_each, row) => ({
		...{ id: `sample ${row}`, rev: 0 },
		cells: Object.fromEntries(columns.map((column) => [cellKey(column.id), sampleCell(column, row, day)]))
	}))
}
