import type { RecordLine } from '$lib/core/app/lines/record.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { readRows } from '../../rows/read.ts'
import { caseOfRow } from '../../signoffs/cases.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

export const record: ShownAs<RecordLine> = {
	holdsSomething: seesRows,
	show(line, view) {
		const { store, request } = view
		const table = tableOf(view, line.table)
		if (!table || request.row === undefined) return []
		const columns = [...new Set([table.label, ...line.columns])]
		const asked = { table: table.id, columns, row: request.row, offers: true }
		const page = readRows(store, request.actor, asked, request.now)
		const n = store.ids.fromId(table.id, request.row)
		const signoff =
			page.rows[0] && n !== undefined ? caseOfRow(store, { table: table.id, n, actor: request.actor }) : null
		const shown = { columns: describeColumns(table, page.columns), row: page.rows[0] ?? null, signoff }
		return [{ id: line.id, kind: 'record', table: table.id, title: table.name, label: table.label, ...shown }]
	}
}

/** Whether this person may see any row of the line's table. */
export function seesRows({ table: id }: { readonly table: number }, view: View): boolean {
	const table = tableOf(view, id)
	return table !== undefined && !isNever(view.standing.rights.rows(table))
}
