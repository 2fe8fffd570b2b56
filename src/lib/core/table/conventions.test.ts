/**
 * Dates and figures as they are written in a region. What is expected is written out from the Unicode CLDR's charts as they were
 * remembered (common practice in each region); the program asks the CLDR of the runtime.
 */
import { describe, expect, test } from 'vitest'
import { exportText } from '../exchange/write-csv.ts'
import { BRITISH } from '../model/writing.ts'
import { conventionsOf, LOCALES, type Locale } from './conventions.ts'
import { parseDate } from './kinds/date.ts'
import { parseNumber } from './kinds/numbers.ts'
import { readTime } from './read-time.ts'
import { figuresOf, showMoney, showNumber } from './show-value.ts'
import { figuresOfDate, patternOfDate, showDate, showInstant, showTime } from './show-times.ts'

const AT = '2026-11-28T14:05:00Z'
/** Spaces that do not break, as spaces; versions of the CLDR differ in the apostrophe. */
const plain = (text: string) => text.replace(/[\u00a0\u202f]/g, ' ').replace(/'/g, '’')

test.each<[Locale, string, string, string, string]>([
	['en-GB', '28/11/2026', '28 Nov 2026 14:05', '−1,234,567.5', '€1,234.50'],
	['en-IE', '28/11/2026', '28 Nov 2026 14:05', '−1,234,567.5', '€1,234.50'],
	['en-US', '11/28/2026', 'Nov 28, 2026 2:05 pm', '−1,234,567.5', '€1,234.50'],
	['de-DE', '28.11.2026', '28 Nov 2026 14:05', '−1.234.567,5', '1.234,50 €'],
	['de-CH', '28.11.2026', '28 Nov 2026 14:05', '−1’234’567.5', '€1’234.50'],
	['fr-FR', '28/11/2026', '28 Nov 2026 14:05', '−1 234 567,5', '1 234,50 €'],
	['nl-NL', '28-11-2026', '28 Nov 2026 14:05', '−1.234.567,5', '€1.234,50'],
	['sv-SE', '2026-11-28', '2026-11-28 14:05', '−1 234 567,5', '1 234,50 €'],
	['nb-NO', '28.11.2026', '28 Nov 2026 14:05', '−1 234 567,5', '1 234,50 €']
])('%s', (locale, date, instant, number, money) => {
	const writing = conventionsOf(locale)
	expect(figuresOfDate('2026-11-28', writing)).toBe(date)
	expect(showInstant(AT, 'UTC', writing)).toBe(instant)
	expect(plain(showNumber(-1234567.5, { writing }))).toBe(number)
	expect(plain(showMoney(1234.5, '€', writing))).toBe(money)
})

test('nothing said is British', () => {
	expect(conventionsOf()).toEqual(BRITISH)
	expect(conventionsOf('en-GB')).toEqual(conventionsOf('en-IE'))
})

test.each([
	[0, '12:00 am'],
	[0.5, '12:00 pm'],
	[1 / 24, '1:00 am'],
	[(23 * 3600 + 59 * 60 + 30) / 86_400, '11:59:30 pm']
])('%d by a clock of twelve hours is %s', (value, shown) => {
	expect(showTime(value, conventionsOf('en-US'))).toBe(shown)
})

test('files keep the clock of twenty-four hours and the dot, however the workspace writes', () => {
	const column = (type: 'time' | 'decimal') => ({ type, writing: conventionsOf(type === 'time' ? 'en-US' : 'de-DE') })
	expect(exportText(column('time'), 0.625)).toBe('15:00')
	expect(exportText(column('decimal'), 1234.5)).toBe('1234.5')
})

describe.each(LOCALES)('what is written as in %s is read back', (locale) => {
	const writing = conventionsOf(locale)

	test.each([0, 1.4, -1234.5, 1234567, 0.001, 1e15])('the number %d', (value) => {
		expect(parseNumber(showNumber(value, { writing }), writing)).toBe(value)
		expect(parseNumber(figuresOf(value, writing), writing)).toBe(value)
	})

	test.each(['2026-11-28', '2026-01-02', '1999-12-31', '2024-02-29'])('the date %s', (iso) => {
		expect(parseDate(figuresOfDate(iso, writing), writing)).toBe(iso)
		expect(parseDate(showDate(iso, writing), writing)).toBe(iso)
		expect(patternOfDate(writing)).toHaveLength(figuresOfDate(iso, writing).length)
	})

	test.each([0, 0.5, 0.25, 50_730 / 86_400])('the time %d', (value) => {
		expect(readTime(showTime(value, writing))).toBeCloseTo(value, 9)
	})
})
