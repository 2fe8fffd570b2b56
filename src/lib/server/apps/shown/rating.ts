import type { RatingLine } from '$lib/core/app/lines/rating.ts'
import { findColumn } from '$lib/core/model/table.ts'
import { openCell } from './tally.ts'
import { tableOf, type ShownAs } from './view.ts'

/** Offered where this person may change the mark, and no sign-off has closed the row. */
export const rating: ShownAs<RatingLine> = {
	holdsSomething: () => false,
	show({ id, label, most, table: number, column: marked }, view) {
		const table = tableOf(view, number)
		const column = table && findColumn(table, marked)
		const { row } = view.request
		const mark = column && row !== undefined ? openCell(table, column, { view, row }) : undefined
		if (!column || row === undefined || mark === undefined) return []
		return [
			{ id, kind: 'rating', label: label || column.name, row, most, mark: typeof mark === 'number' ? mark : null }
		]
	}
}
