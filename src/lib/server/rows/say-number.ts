import { moneyOf } from '$lib/core/formula/check/money-of.ts'
import type { Column } from '$lib/core/model/table.ts'
import { showMoney, showNumber } from '$lib/core/table/show-value.ts'
import type { Store } from '../store/store.ts'

/** How a number of a column is read, and without its unit. */
export interface SayNumber {
	(value: number): string
	readonly bare: (value: number) => string
}

/** How numbers of a column are read; of none, plain counts. A mean has more digits than anybody reads. */
export function sayNumber(column: Column | undefined, { store }: { readonly store: Store }, isMean = false): SayNumber {
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
