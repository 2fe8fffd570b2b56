import { CURRENCY_MARKS } from './currency.ts'
import { grouped, numberKind } from './numbers.ts'

/** Kept in minor units. The unit is the currency's sign, or its code with a space, and stands before the digits. */
export const money = numberKind({
	name: 'money',
	// The sign of the number may stand before the currency's: -£0.99.
	strip: CURRENCY_MARKS,
	show: (value, column) => showMoney(value, column.unit)
})

/** An amount as it is read. */
export function showMoney(value: number, unit = '£'): string {
	const digits = grouped(value, 2)
	const sign = unit.length > 1 ? `${unit} ` : unit
	return digits.startsWith('−') ? `−${sign}${digits.slice(1)}` : `${sign}${digits}`
}
