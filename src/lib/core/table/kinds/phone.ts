import { textKind } from './texts.ts'

/** Digits with the usual signs between them, 5 to 15 digits (E.164 allows 15), kept as written. */
export const phone = textKind({
	name: 'phone',
	max: 40,
	normalize: (value) => {
		const digits = value.replace(/\D/g, '').length
		return /^\+?[\d\s()./-]+(?:\s*(?:x|ext\.?)\s*\d+)?$/i.test(value) && digits >= 5 && digits <= 20 ? value : undefined
	},
	remedy: (value) => `"${value}" is no phone number. Write digits, with + and the country's code from abroad.`
})
