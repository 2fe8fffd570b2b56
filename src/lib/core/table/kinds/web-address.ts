import { textKind } from './texts.ts'

/** Only http and https: nothing that a click could run. */
export const webAddress = textKind({
	name: 'web address',
	normalize: (value) => {
		const full = /^www\./i.test(value) ? `https://${value}` : value
		return /^https?:\/\/[^\s/$.?#][^\s]*$/i.test(full) ? full : undefined
	},
	remedy: (value) => `"${value}" is no web address. It starts with https://.`
})
