/** The codes of money that are met most (ISO 4217). */
export const CURRENCY_CODES = 'GBP|EUR|USD|CHF|NOK|SEK|DKK|ISK|PLN|CZK|JPY|CNY|INR|CAD|AUD|NZD|ZAR'

const MARK = `[£€$¥]|\\b(?:${CURRENCY_CODES})\\b`

/** A sign or a code that says what money an amount is. */
export const CURRENCY_MARK = new RegExp(MARK)
export const CURRENCY_MARKS = new RegExp(`\\s*(?:${MARK})\\s*`, 'g')

const CODE_OF: Readonly<Record<string, string>> = { '£': 'GBP', '€': 'EUR', $: 'USD', '¥': 'JPY' }
const SIGN_OF = new Map(Object.entries(CODE_OF).map(([sign, code]) => [code, sign]))
const CODES = new Set(CURRENCY_CODES.split('|'))

/** The code of ISO 4217 of a sign or a code; blank for what is no money that is known. */
export function codeOf(unit: string): string {
	return CODE_OF[unit] ?? (CODES.has(unit) ? unit : '')
}

/** A code as its sign where it has one, otherwise as it is; blank for what is no money that is known. */
export function signOf(code: string): string {
	return SIGN_OF.get(code) ?? (CODES.has(code) ? code : '')
}
