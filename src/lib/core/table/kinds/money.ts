import { CURRENCY_MARKS } from './currency.ts'
import { grouped, numberKind } from './numbers.ts'

/** Kept in minor units. The unit is the currency's sign, or its code with a space, and stands before the digits. */
export const money = numberKind({
	name: 'money',
	// The sign of the number may stand before the currency's: -£0.99.
	strip: CURRENCY_MARKS,
	show: (value, column) => {
		const digits = grouped(value, 2)
		const sign = column.unit ?? '£'
		const unit = sign.length > 1 ? `${sign} ` : sign
		return digits.startsWith('−') ? `−${unit}${digits.slice(1)}` : `${unit}${digits}`
	}
})
