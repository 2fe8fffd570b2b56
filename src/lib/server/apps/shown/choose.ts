import type { ChooseLine } from '$lib/core/app/lines/choose.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { readRows } from '../../rows/read.ts'
import { tableOf, type ShownAs } from './view.ts'

/** More than anybody looks through; what there is of them is said. */
const MOST = 200

export const choose: ShownAs<ChooseLine> = {
	holdsSomething: () => false,
	show(line, view) {
		const { store, request, here } = view
		const table = tableOf(view, line.table)
		if (!table) return []
		const { actor, now } = request
		const asked = { table: table.id, columns: [table.label], where: [line.where], here }
		const sort = { column: table.label, descending: false }
		const { rows, next } = readRows(store, actor, { ...asked, sort, limit: MOST }, now)
		const [column] = describeColumns(table, [table.label])
		if (!column || rows.length === 0) return []
		const n = here.get(nameKey(line.holds))?.n ?? null
		return [
			{
				...{ id: line.id, kind: 'choose', label: line.label || table.name, holds: line.holds, column },
				options: rows.map((row) => ({ id: row.id, cell: row.cells[cellKey(table.label)] ?? null })),
				chosen: n === null ? null : store.ids.toId(table.id, n),
				isCut: next !== null
			}
		]
	}
}
