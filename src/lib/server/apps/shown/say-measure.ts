import type { LineOf } from '$lib/core/app/lines/all.ts'
import { moneyOf } from '$lib/core/formula/check/money-of.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import { showMoney, showNumber } from '$lib/core/table/show-value.ts'
import type { View } from './view.ts'

/** How a number of a column is read, and without its unit. */
export interface SayNumber {
	(value: number): string
	readonly bare: (value: number) => string
}

/** How an amount of its measure is read. */
export function sayMeasure(
	{ measure }: Pick<LineOf<'figure' | 'chart'>, 'measure'>,
	table: Table,
	view: View
): SayNumber {
	const column = measure.column === null || measure.of === 'count' ? undefined : findColumn(table, measure.column)
	return sayNumber(column, view, measure.of === 'mean')
}

/** How numbers of a column are read; of none, plain counts. A mean has more digits than anybody reads. */
export function sayNumber(column: Column | undefined, { store }: View, isMean = false): SayNumber {
	const { writing } = store.workspace()
	const round = (value: number) => (isMean ? Number(value.toFixed(2)) : value)
	const plain = (value: number) => showNumber(round(value), { writing })
	const money = column && (column.type === 'money' ? (column.unit ?? '£') : moneyIn(column))
	if (money !== undefined) return both((value) => showMoney(value, money, writing))
	if (column?.type === 'percent') return both((value) => `${showNumber(round(value * 100), { writing })} %`)
	return column?.unit ? both((value) => `${plain(value)} ${column.unit}`, plain) : both(plain)
}

function moneyIn({ computed }: Column): string | undefined {
	return computed && moneyOf(computed.expr)
}

function both(say: (value: number) => string, bare = say): SayNumber {
	return Object.assign((value: number) => say(value), { bare })
}
