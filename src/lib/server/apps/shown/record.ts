import type { RecordLine } from '$lib/core/app/lines/record.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { readRows } from '../../rows/read.ts'
import { caseOfRow } from '../../signoffs/cases.ts'
import { tableOf, type ShownAs, type View, type ViewRequest } from './view.ts'

export const record: ShownAs<RecordLine> = {
	holdsSomething: seesRows,
	show(line, view) {
		const { store, request } = view
		const table = tableOf(view, line.table)
		const id = line.held === '' ? request.row : heldId(line.held, request)
		if (!table || (id === undefined && line.held === '')) return []
		if (id === undefined) return [waiting(line, table)]
		const columns = [...new Set([table.label, ...line.columns])]
		const asked = { table: table.id, columns, row: id, offers: true }
		const page = readRows(store, request.actor, asked, request.now)
		const n = store.ids.fromId(table.id, id)
		const signoff =
			page.rows[0] && n !== undefined ? caseOfRow(store, { table: table.id, n, actor: request.actor }) : null
		const shown = { columns: describeColumns(table, page.columns), row: page.rows[0] ?? null, signoff }
		return [{ ...waiting(line, table), waits: false, ...shown }]
	}
}

/** The row that is chosen, whoever sees it. */
function heldId(name: string, { held = {} }: ViewRequest): string | undefined {
	return Object.entries(held).find(([each]) => nameKey(each) === nameKey(name))?.[1]
}

/** Before a row is chosen. */
function waiting({ id }: RecordLine, table: Table): Extract<ShownLine, { kind: 'record' }> {
	const none = { columns: [], row: null, signoff: null, waits: true }
	return { id, kind: 'record', table: table.id, title: table.name, label: table.label, ...none }
}

/** Whether this person may see any row of the line's table. */
export function seesRows({ table: id }: { readonly table: number }, view: View): boolean {
	const table = tableOf(view, id)
	return table !== undefined && !isNever(view.standing.rights.rows(table))
}
