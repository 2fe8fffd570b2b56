/** The codes of money that are met most (ISO 4217). */
export const CURRENCY_CODES = 'GBP|EUR|USD|CHF|NOK|SEK|DKK|ISK|PLN|CZK|JPY|CNY|INR|CAD|AUD|NZD|ZAR'

const MARK = `[£€$¥]|\\b(?:${CURRENCY_CODES})\\b`

/** A sign or a code that says what money an amount is. */
export const CURRENCY_MARK = new RegExp(MARK)
export const CURRENCY_MARKS = new RegExp(`\\s*(?:${MARK})\\s*`, 'g')
