import type { PutLine } from '$lib/core/app/lines/put.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import type { RowAction } from '$lib/core/requests/screens.ts'
import { openCell } from './tally.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

/** On the row of the screen: offered where this person may change the column there, and no sign-off has closed the row. */
export const put: ShownAs<PutLine> = {
	holdsSomething: () => false,
	show({ id, label, table: number, column: written }, view) {
		const table = tableOf(view, number)
		const column = table && findColumn(table, written)
		const { row } = view.request
		if (!column || row === undefined || openCell(table, column, { view, row }) === undefined) return []
		return [{ id, kind: 'button', label: label || column.name, icon: null, picture: null, does: { kind: 'put' } }]
	}
}

/** On each row of a list, where this person could write the column on some row. */
export function putOnRows(
	{ id, label, table: number, column: written }: PutLine,
	table: Table,
	view: View
): RowAction[] {
	const column = number === table.id ? findColumn(table, written) : undefined
	if (!column || !view.standing.rights.mayPossibly('change', table, column)) return []
	return [{ id, label: label || column.name, puts: true }]
}
