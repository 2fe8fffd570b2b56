import type { FormLine } from '$lib/core/app/lines/form.ts'
import { findColumn } from '$lib/core/model/table.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { tableOf, type ShownAs } from './view.ts'

export const form: ShownAs<FormLine> = {
	holdsSomething(line, view) {
		const table = tableOf(view, line.table)
		return table !== undefined && view.standing.rights.mayPossibly('add', table)
	},
	show(line, view) {
		const table = tableOf(view, line.table)
		if (!table) return []
		const { rights } = view.standing
		if (line.of !== null && view.request.row === undefined) return []
		const asked = line.columns.filter((id) => {
			if (id === line.of) return false
			const column = findColumn(table, id)
			return column && !column.computed && rights.mayPossibly('add', table, column)
		})
		if (asked.length === 0) return []
		const thanks = line.thanks.trim() === '' ? 'Saved.' : line.thanks
		const columns = describeColumns(table, asked)
		const { id, then, of } = line
		return [{ id, kind: 'form', table: table.id, title: table.name, columns, thanks, then, isOfRow: of !== null }]
	}
}
