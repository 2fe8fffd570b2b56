/** Sums on numbers that both lives share, registered with the database under the names of `compile.ts`. */

/** The text of a number, as a person would write it: at most 15 significant digits, no trailing noughts. */
export function numberText(value: number): string {
	return String(significant(value)).toUpperCase()
}

/** The number by the 15 digits that a double surely carries. */
export function significant(value: number): number {
	return Number(value.toPrecision(15))
}

/** The nearest whole number, halves away from zero: -2.5 becomes -3. */
export function roundHalfAway(value: number): number {
	return Math.sign(value) * Math.round(Math.abs(value)) + 0
}

/** Moves the decimal point as a person does, on the digits: 1.005 by 2 is 100.5, where 1.005 * 100 is 100.49999999999999. */
export function shiftPoint(value: number, by: number): number {
	const [digits = '0', exponent = '0'] = significant(value).toExponential().split('e')
	return Number(`${digits}e${Number(exponent) + by}`)
}

/** Base to an exponent, or undefined where the result is no number. */
export function power(base: number, exponent: number): number | undefined {
	const result = base ** exponent
	return Number.isFinite(result) ? result : undefined
}

/**
 * Sums as the database does: Kahan's sum with Neumaier's correction (SQLite's `sum()` since 3.43), so that both lives
 * agree to the last bit.
 */
export function compensatedSum(values: readonly number[]): number {
	let sum = 0
	let lost = 0
	for (const value of values) {
		const next = sum + value
		lost += Math.abs(sum) > Math.abs(value) ? sum - next + value : value - next + sum
		sum = next
	}
	return sum + lost
}
