import { grouped, numberKind } from './numbers.ts'

/** Kept in minor units. The unit is the currency's sign and stands before the digits. */
export const money = numberKind({
	name: 'money',
	// The sign of the number may stand before the currency's: -£0.99.
	strip: /\s*(?:£|€|\$|¥|\b(?:GBP|EUR|USD)\b)\s*/g,
	show: (value, column) => {
		const digits = grouped(value, 2)
		const unit = column.unit ?? '£'
		return digits.startsWith('−') ? `−${unit}${digits.slice(1)}` : `${unit}${digits}`
	}
})
