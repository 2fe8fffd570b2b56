import type { TallyLine } from '$lib/core/app/lines/tally.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { RowAction, ShownTally } from '$lib/core/requests/screens.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { readRows } from '../../rows/read.ts'
import { workOut } from '../../routines/work-out.ts'
import { caseOfRow } from '../../signoffs/cases.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

export const tally: ShownAs<TallyLine> = {
	holdsSomething: () => false,
	show: (line, view) => tallyOnRow(line, view, view.request.row).map((each) => ({ kind: 'tally', ...each }))
}

/** On one row: offered where this person may change the number there, and no sign-off has closed the row. */
export function tallyOnRow(line: TallyLine, view: View, id: string | undefined): ShownTally[] {
	const { store, request, standing } = view
	const { actor, now } = request
	const table = tableOf(view, line.table)
	const column = table && findColumn(table, line.column)
	const n = table && id !== undefined ? store.ids.fromId(table.id, id) : undefined
	if (!column || n === undefined) return []
	const asked = { table: table.id, columns: [column.id], row: id, offers: true }
	const [row] = readRows(store, actor, asked, now).rows
	const value = row?.cells[cellKey(column.id)]
	const mayAdd = value !== undefined && (row?.may?.change.includes(column.id) ?? false)
	if (!row || !mayAdd || caseOfRow(store, { table: table.id, n, actor }) !== null) return []
	const [described] = describeColumns(table, [column.id])
	const { expr } = check(line.by || '1', { catalogue: store.workspace().catalogue, rows: [table], me: true })
	const amount = expr ? workOut(store, expr, { table, n, moment: standing.moment, rights: standing.rights }) : null
	if (!described) return []
	return [
		{
			...{ id: line.id, row: row.id, column: described, takesAway: line.less !== null },
			label: line.label || column.name,
			value,
			amount: typeof amount === 'number' ? amount.toLocaleString('en-GB') : ''
		}
	]
}

/** On each row of a list, where this person could change the number on some row. */
export function tallyOnRows(line: TallyLine, table: Table, { standing }: View): RowAction[] {
	const column = line.table === table.id ? findColumn(table, line.column) : undefined
	if (!column || !standing.rights.mayPossibly('change', table, column)) return []
	const more: RowAction = { id: line.id, label: sayAdds(line, column, '+'), tally: 'more' }
	return line.less === null ? [more] : [more, { id: line.id, label: sayAdds(line, column, '−'), tally: 'less' }]
}

/** `+50 In stock`; how much it is stands there only where it is the same on every row. */
function sayAdds({ by, label }: TallyLine, { name }: Column, sign: string): string {
	const amount = by.trim() === '' ? '1' : by.trim()
	return `${sign}${/^[\d.,]+$/.test(amount) ? amount : ''} ${label || name}`
}
