import type { TallyLine } from '$lib/core/app/lines/tally.ts'
import { showNumber } from '$lib/core/table/show-value.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import { cellKey, type WireCell } from '$lib/core/query/wire.ts'
import type { RowAction, ShownTally } from '$lib/core/requests/screens.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { readRows } from '../../rows/read.ts'
import { caseOfRow } from '../../signoffs/cases.ts'
import { countedRow } from '../counted-row.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

export const tally: ShownAs<TallyLine> = {
	holdsSomething: () => false,
	show: (line, view) => tallyOnRow(line, view, view.request.row).map((each) => ({ kind: 'tally', ...each }))
}

/**
 * On one row: offered where this person may change the number there, and no sign-off has closed the row; where the row that it
 * counts on is missing, to who may add one.
 */
export function tallyOnRow(line: TallyLine, view: View, shown: string | undefined): ShownTally[] {
	const { store, request, standing } = view
	const table = tableOf(view, line.table)
	const column = table && findColumn(table, line.column)
	if (!column || shown === undefined) return []
	const { actor, now } = request
	const counted = countedRow(store, line, { row: shown, actor, now })
	if (!counted) return []
	const { row, amount } = counted
	if (amount === null && row === undefined) return []
	const mayAdd = row === undefined && standing.rights.mayPossibly('add', table, column)
	const value = row === undefined ? null : openCell(table, column, { view, row })
	const [described] = describeColumns(table, [column.id])
	if (!described || value === undefined || (row === undefined && !mayAdd)) return []
	return [
		{
			...{ id: line.id, row: shown, column: described, takesAway: line.less !== null },
			label: line.label || column.name,
			value,
			amount: amount === null ? '' : showNumber(amount, column)
		}
	]
}

/** What stands there, where this person may change it and nothing has closed the row. */
export function openCell(
	table: Table,
	column: Column,
	{ view, row: id }: { view: View; row: string }
): WireCell | undefined {
	const { store, request } = view
	const { actor, now } = request
	const n = store.ids.fromId(table.id, id)
	const asked = { table: table.id, columns: [column.id], row: id, offers: true }
	const [row] = readRows(store, actor, asked, now).rows
	const isOffered = row?.may?.change.includes(column.id) ?? false
	if (n === undefined || !isOffered || caseOfRow(store, { table: table.id, n, actor }) !== null) return undefined
	return row?.cells[cellKey(column.id)]
}

/** On each row of a list, where this person could change the number on some row. */
export function tallyOnRows(line: TallyLine, table: Table, view: View): RowAction[] {
	const counts = tableOf(view, line.table)
	const column = counts && findColumn(counts, line.column)
	if (!column || (line.of === null ? counts.id : findColumn(counts, line.of)?.to) !== table.id) return []
	const { rights } = view.standing
	const mayCount =
		rights.mayPossibly('change', counts, column) || (line.of !== null && rights.mayPossibly('add', counts, column))
	if (!mayCount) return []
	const more: RowAction = { id: line.id, label: sayAdds(line, column, '+'), tally: 'more' }
	return line.less === null ? [more] : [more, { id: line.id, label: sayAdds(line, column, '−'), tally: 'less' }]
}

/** `+50 In stock`; how much it is stands there only where it is the same on every row. */
function sayAdds({ by, label }: TallyLine, { name }: Column, sign: string): string {
	const amount = by.trim() === '' ? '1' : by.trim()
	return `${sign}${/^[\d.,]+$/.test(amount) ? amount : ''} ${label || name}`
}
