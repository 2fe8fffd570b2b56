import type { LineOf } from '$lib/core/app/lines/all.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import { sayNumber, type SayNumber } from '../../rows/say-number.ts'
import type { View } from './view.ts'

/** How an amount of its measure is read. */
export function sayMeasure(
	{ measure }: Pick<LineOf<'figure' | 'chart'>, 'measure'>,
	table: Table,
	view: View
): SayNumber {
	const column = measure.column === null || measure.of === 'count' ? undefined : findColumn(table, measure.column)
	return sayNumber(column, view, measure.of === 'mean')
}
