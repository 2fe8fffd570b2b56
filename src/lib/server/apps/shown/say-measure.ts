import type { LineOf } from '$lib/core/app/lines/all.ts'
import { moneyOf } from '$lib/core/formula/check/money-of.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import { showMoney, showNumber } from '$lib/core/table/show-value.ts'
import type { View } from './view.ts'

/** How an amount of its measure is read. */
export function sayMeasure(
	{ measure }: Pick<LineOf<'figure' | 'chart'>, 'measure'>,
	table: Table,
	{ store }: View
): (value: number) => string {
	const { writing } = store.workspace()
	const column = measure.column === null ? undefined : findColumn(table, measure.column)
	// A mean has more digits than anybody reads.
	const round = (value: number) => (measure.of === 'mean' ? Number(value.toFixed(2)) : value)
	const isCount = measure.of === 'count' || !column
	if (isCount) return (value) => showNumber(value, { writing })
	const money = column.type === 'money' ? (column.unit ?? '£') : column.computed && moneyOf(column.computed.expr)
	if (money !== undefined) return (value) => showMoney(value, money, writing)
	if (column.type === 'percent') return (value) => `${showNumber(round(value * 100), { writing })} %`
	const unit = column.unit ? ` ${column.unit}` : ''
	return (value) => `${showNumber(round(value), { writing })}${unit}`
}
