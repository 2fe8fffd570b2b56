import { isIsoDate } from '../../schedule/calendar.ts'
import { MONTHS } from '../show-times.ts'
import { read, refuse, type ColumnKind } from './kind.ts'
import type { Writing } from '../../model/writing.ts'

const ISO = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/
const PARTS = /^(\d{1,2})[-/. ](\d{1,2})[-/. ](\d{4}|\d{2})$/
const DAY_NAME = /^(?:[a-z]{3,9},?\s+)?(\d{1,2})(?:st|nd|rd|th)?[-\s.]+([a-z]{3,9})\.?,?[-\s]+(\d{4}|\d{2})$/i
const NAME_DAY = /^([a-z]{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})$/i

export const date: ColumnKind = {
	name: 'date',
	read: (text, _column, writing) => {
		const value = parseDate(text, writing)
		return value === undefined
			? refuse(`"${text}" is no date that exists. Write it like 3 Apr 2026 or 2026-04-03.`)
			: read(value)
	},
	check: (value) => (typeof value === 'string' && isIsoDate(value) ? read(value) : refuse('A date was expected here.')),
	toStored: (value) => String(value),
	fromStored: (stored) => String(stored)
}

/** An ISO date from text, or undefined where it is none, or none in this order of day and month. */
export function parseDate(text: string, writing: Writing): string | undefined {
	const iso = ISO.exec(text)
	if (iso) return toDate(iso[1], iso[2], iso[3])
	const parts = PARTS.exec(text)
	if (parts) {
		const [, first, second, year] = parts
		return writing.dates === 'month first' ? toDate(year, first, second) : toDate(year, second, first)
	}
	const dayName = DAY_NAME.exec(text)
	if (dayName) return toDate(dayName[3], monthNumber(dayName[2]), dayName[1])
	const nameDay = NAME_DAY.exec(text)
	return nameDay ? toDate(nameDay[3], monthNumber(nameDay[1]), nameDay[2]) : undefined
}

function monthNumber(name: string | undefined): string {
	const start = name?.slice(0, 3).toLowerCase()
	return String(MONTHS.findIndex((month) => month.toLowerCase() === start) + 1)
}

/** Two-digit years: 00 to 69 are 2000 to 2069, as POSIX `%y` reads them but for 69 (common practice). */
function toDate(year = '', month = '', day = ''): string | undefined {
	const full = year.length === 2 ? (Number(year) < 70 ? `20${year}` : `19${year}`) : year
	const iso = `${full}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`
	return isIsoDate(iso) ? iso : undefined
}
