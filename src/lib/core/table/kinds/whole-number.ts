import { numberKind } from './numbers.ts'

/** Within ±(2^53 − 1); longer digits are text. */
export const wholeNumber = numberKind({
	name: 'whole number',
	check: (value) => {
		if (!Number.isInteger(value)) return `${value} is not a whole number. Leave out the decimals.`
		return Number.isSafeInteger(value) ? undefined : 'This number is too long. Keep it as text.'
	}
})
