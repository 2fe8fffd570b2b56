/** Patterns that number rows: words, `{year}`, and one group of noughts for the digits: `SR-{year}-{0000}`. */

const DIGITS = /\{(0+)\}/
const YEAR = /\{year\}/g

/** Whether a pattern has exactly one place for the digits, and nothing in braces that has no meaning. */
export function isNumbering(pattern: string): boolean {
	const rest = pattern.replace(YEAR, '').replace(DIGITS, '')
	return DIGITS.test(pattern) && !/[{}]/.test(rest)
}

/** The series that a pattern counts in at a date: each year counts by itself where the year is in the pattern. */
export function seriesOf(pattern: string, today: string): string {
	return pattern.replace(YEAR, today.slice(0, 4))
}

/** The number of a row in its series, as it is shown; more digits than noughts are all shown. */
export function printNumber(series: string, count: number): string {
	return series.replace(DIGITS, (_found, noughts: string) => String(count).padStart(noughts.length, '0'))
}

/** The number that stands in a text of a series; undefined for any other text. */
export function readNumber(series: string, text: string): number | undefined {
	const [before = '', after = ''] = series.split(DIGITS).filter((_part, i) => i !== 1)
	if (!text.startsWith(before) || !text.endsWith(after)) return undefined
	const digits = text.slice(before.length, text.length - after.length)
	return /^\d{1,15}$/.test(digits) ? Number(digits) : undefined
}
