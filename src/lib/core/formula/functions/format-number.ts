import { shiftPoint, significant } from '../../number/arithmetic.ts'

/** A number with so many places (negative ones round tens and hundreds) and a sign between thousands. */
export function showGrouped(number: number, places: number, group: string): string {
	const shown = showPlaces(Math.abs(number), places)
	const [whole = '0', fraction] = shown.split('.')
	const grouped = group === '' ? whole : whole.replace(/\B(?=(\d{3})+(?!\d))/g, group)
	const sign = number < 0 && /[1-9]/.test(shown) ? '-' : ''
	return sign + grouped + (fraction === undefined ? '' : `.${fraction}`)
}

/** The digits of a number that is not negative, half rounded up by the digits as they are written. */
export function showPlaces(number: number, places: number): string {
	if (number >= 1e21) return number.toLocaleString('en', { useGrouping: false })
	const rounded = shiftPoint(Math.round(shiftPoint(number, places)), -places)
	if (Number.isInteger(number))
		return number === rounded || places >= 0 ? number.toFixed(Math.max(0, places)) : rounded.toFixed(0)
	return significant(rounded).toFixed(Math.max(0, places))
}
