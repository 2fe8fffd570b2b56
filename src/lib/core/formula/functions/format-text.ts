/**
 * What TEXT makes of a format: `0.00`, `#,##0`, `0%`, `0.00E+00`, `dd/mm/yyyy`, `h:mm AM/PM`, `@`, text in quotes.
 *
 * The codes are the common practice of spreadsheets, which OpenFormula leaves to the program (6.20.23, from memory).
 * Parts after ";" are for negative numbers, nought and text, as there.
 */
import { fromDayNumber, MONTH_NAMES, toDayNumber, weekdayOf, WEEKDAY_NAMES } from '../../schedule/calendar.ts'
import { localDate, localTime } from '../../schedule/zone.ts'
import { shiftPoint } from '../../number/arithmetic.ts'
import { BAD_VALUE, type Value } from '../../model/formula.ts'
import { family } from './define.ts'
import { showPlaces } from './format-number.ts'

const text = family('text')

const FORMAT = { name: 'format', type: 'text' } as const

/** The checker chooses among these by the type of the value; all are written TEXT. */
export const TEXT_OF_NUMBER = text({
	name: 'TEXT',
	parameters: [{ name: 'value', type: 'number' }, FORMAT],
	result: 'text',
	doc: 'A number, date or time as text in a format: 0 and # are digits, d m y h s parts of a date, @ the text itself.',
	examples: [
		['TEXT(1234567; "#,##0")', '1,234,567'],
		['TEXT(DATE(2024; 2; 9); "d mmm yyyy")', '9 Feb 2024']
	],
	canFail: true,
	evaluate: (value, format) => formatNumber(value, format)
})

export const TEXT_OF_DATE = text({
	...TEXT_OF_NUMBER,
	name: 'TEXT.DATE',
	parameters: [{ name: 'value', type: 'date' }, FORMAT],
	examples: [],
	evaluate: (value, format) => formatMoment(toDayNumber(value), 0, format)
})

export const TEXT_OF_MOMENT = text({
	...TEXT_OF_NUMBER,
	name: 'TEXT.MOMENT',
	parameters: [{ name: 'value', type: 'text' }, FORMAT, { name: 'zone', type: 'text' }],
	examples: [],
	evaluate: (value, format, zone) =>
		value === '' ? '' : formatMoment(toDayNumber(localDate(value, zone)), localTime(value, zone), format)
})

export const TEXT_OF_TEXT = text({
	...TEXT_OF_NUMBER,
	name: 'TEXT.TEXT',
	parameters: [{ name: 'value', type: 'text' }, FORMAT],
	examples: [],
	canFail: false,
	evaluate: (value, format) => {
		const part = sectionsOf(format)[3] ?? (sectionsOf(format).length === 1 && format.includes('@') ? format : '@')
		return tokensOf(part)
			.map((token) => (token === '@' ? value : literalOf(token)))
			.join('')
	}
})

const MAX_PLACES = 30

function formatNumber(value: number, format: string): Value {
	const sections = sectionsOf(format)
	const [positive = '', negative, zero] = sections
	const section = value < 0 && negative !== undefined ? negative : value === 0 && zero !== undefined ? zero : positive
	if (isMomentFormat(section))
		return value < 0 ? BAD_VALUE : formatMoment(FIRST_SERIAL_DAY + Math.floor(value), value % 1, section)
	const own = section === negative && value < 0
	const shown = formatDigits(Math.abs(value), section)
	if (shown === undefined) return BAD_VALUE
	return value < 0 && !own && /[1-9]/.test(shown.digits) ? `-${shown.text}` : shown.text
}

/** Day 0 of the serial numbers of spreadsheets, 1899-12-30 (OpenFormula 4.3.3, common practice). */
const FIRST_SERIAL_DAY = toDayNumber('1899-12-30')

function formatDigits(value: number, section: string): { text: string; digits: string } | undefined {
	const tokens = tokensOf(section)
	const pattern = tokens.filter((token) => /^[0#?.,]$/.test(token)).join('')
	const percent = tokens.filter((token) => token === '%').length
	const exponent = tokens.find((token) => /^[eE][+-]0+$/.test(token))
	if (pattern === '')
		return { text: tokens.map((token) => (token === '@' ? String(value) : literalOf(token))).join(''), digits: '0' }
	const [wholePart = '', fractionPart = ''] = pattern.split('.', 2)
	// Commas at the end divide by a thousand each; between digits they group.
	const thousands = /,+$/.exec(wholePart)?.[0].length ?? 0
	const scaled = shiftPoint(value, percent * 2 - thousands * 3)
	const places = fractionPart.replace(/[^0#?]/g, '').length
	if (places > MAX_PLACES) return undefined
	const power = exponent ? (scaled === 0 ? 0 : Math.floor(Math.log10(scaled))) : 0
	const shown = showPlaces(exponent ? shiftPoint(scaled, -power) : scaled, places)
	const digits = fillDigits(shown, wholePart.replace(/,+$/, ''), fractionPart)
	return { text: place(tokens, digits, exponent && showExponent(exponent, power)), digits: shown }
}

/** Puts the digits where the pattern's digits begin, the other signs round them. */
function place(tokens: readonly string[], digits: string, exponent: string | undefined): string {
	let text = ''
	let placed = false
	for (const token of tokens) {
		if (/^[0#?.,]$/.test(token)) {
			if (!placed) text += digits
			placed = true
		} else text += /^[eE][+-]0+$/.test(token) ? (exponent ?? '') : literalOf(token)
	}
	return text
}

function fillDigits(shown: string, wholePart: string, fractionPart: string): string {
	const [shownWhole = '0', shownFraction = ''] = shown.split('.')
	const least = wholePart.replace(/[^0]/g, '').length
	const bare = shownWhole === '0' && least === 0 ? '' : shownWhole
	const padded = bare.padStart(least, '0')
	const grouped = wholePart.includes(',') ? padded.replace(/\B(?=(\d{3})+(?!\d))/g, ',') : padded
	const kept = fractionPart.replace(/[^0]/g, '').length
	let fraction = shownFraction
	while (fraction.length > kept && fraction.endsWith('0')) fraction = fraction.slice(0, -1)
	return fraction === '' ? grouped : `${grouped}.${fraction}`
}

function showExponent(token: string, power: number): string {
	const digits = String(Math.abs(power)).padStart(token.length - 2, '0')
	return `${token[0]}${power < 0 ? '-' : token[1] === '+' ? '+' : ''}${digits}`
}

function isMomentFormat(section: string): boolean {
	return tokensOf(section).some((token) => /^([dyhs]+|m+|am\/pm|a\/p|\[h+\])$/i.test(token))
}

/** @param fraction the time of day, as a part of a day */
function formatMoment(day: number, fraction: number, format: string): Value {
	const date = fromDayNumber(day)
	if (date === undefined) return BAD_VALUE
	const tokens = tokensOf(sectionsOf(format)[0] ?? '')
	const seconds = Math.round(fraction * 86_400)
	const halfDay = tokens.some((token) => /^(am\/pm|a\/p)$/i.test(token))
	const parts = { date, day, seconds, halfDay, days: day - FIRST_SERIAL_DAY }
	return tokens.map((token, i) => momentPart(token, parts, isMinutes(tokens, i))).join('')
}

interface MomentParts {
	readonly date: string
	readonly day: number
	readonly seconds: number
	readonly halfDay: boolean
	readonly days: number
}

/** "m" is minutes after hours or before seconds, months anywhere else. */
function isMinutes(tokens: readonly string[], at: number): boolean {
	const before = tokens.slice(0, at).findLast((token) => /^([dymhs]+|\[h+\])$/i.test(token))
	const after = tokens.slice(at + 1).find((token) => /^[dymhs]+$/i.test(token))
	return /^(h+|\[h+\])$/i.test(before ?? '') || /^s+$/i.test(after ?? '')
}

function momentPart(token: string, { date, day, seconds, halfDay, days }: MomentParts, minutes: boolean): string {
	const [year = '', month = '', dayOfMonth = ''] = date.split('-')
	const hour = Math.floor(seconds / 3600) % 24
	switch (token.toLowerCase()) {
		case 'd':
			return String(Number(dayOfMonth))
		case 'dd':
			return dayOfMonth
		case 'ddd':
			return (WEEKDAY_NAMES[weekdayOf(day)] ?? '').slice(0, 3)
		case 'dddd':
			return WEEKDAY_NAMES[weekdayOf(day)] ?? ''
		case 'm':
			return String(minutes ? Math.floor(seconds / 60) % 60 : Number(month))
		case 'mm':
			return minutes ? two(Math.floor(seconds / 60) % 60) : month
		case 'mmm':
			return (MONTH_NAMES[Number(month) - 1] ?? '').slice(0, 3)
		case 'mmmm':
			return MONTH_NAMES[Number(month) - 1] ?? ''
		case 'yy':
			return year.slice(2)
		case 'y':
		case 'yyy':
		case 'yyyy':
			return year
		case 'h':
			return String(halfDay ? hour % 12 || 12 : hour)
		case 'hh':
			return two(halfDay ? hour % 12 || 12 : hour)
		case '[h]':
		case '[hh]':
			return String(days * 24 + Math.floor(seconds / 3600))
		case 's':
			return String(seconds % 60)
		case 'ss':
			return two(seconds % 60)
		case 'am/pm':
			return hour < 12 ? 'AM' : 'PM'
		case 'a/p':
			return hour < 12 ? 'A' : 'P'
		default:
			return literalOf(token)
	}
}

function two(number: number): string {
	return String(number).padStart(2, '0')
}

/** A format's parts between ";" that stand outside quotes. */
function sectionsOf(format: string): string[] {
	const sections = ['']
	for (const token of tokensOf(format)) {
		if (token === ';') sections.push('')
		else sections[sections.length - 1] += token
	}
	return sections
}

const TOKEN = /"[^"]*"?|\\.|\[h+\]|am\/pm|a\/p|e[+-]0+|d+|m+|y+|h+|s+|./gisu

function tokensOf(format: string): string[] {
	return format.match(TOKEN) ?? []
}

function literalOf(token: string): string {
	if (token.startsWith('"')) return token.slice(1, token.endsWith('"') && token.length > 1 ? -1 : undefined)
	if (token.startsWith('\\')) return token.slice(1)
	return token === '_' || token === '@' ? '' : token
}
