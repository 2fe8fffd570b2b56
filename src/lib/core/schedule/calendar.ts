/**
 * Calendar sums on ISO dates (`2026-11-23`), by the proleptic Gregorian calendar, years 1 to 9999.
 *
 * Every function gives undefined where the result would leave those years. No time zones, no clock.
 */

const DAY_MS = 86_400_000
const FIRST_DAY = Date.UTC(2001, 0, 1) / DAY_MS - 730_485
const MOST_WORKDAYS = 3_000_000
const LAST_DAY = Date.UTC(9999, 11, 31) / DAY_MS

export const MONTH_NAMES = [
	'January',
	'February',
	'March',
	'April',
	'May',
	'June',
	'July',
	'August',
	'September',
	'October',
	'November',
	'December'
] as const

export const WEEKDAY_NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const

/** Days since 1970-01-01; NaN for text that is no date. */
export function toDayNumber(date: string): number {
	return Date.parse(`${date}T00:00:00Z`) / DAY_MS
}

/** The ISO date of a day, counted from 1970-01-01. */
export function fromDayNumber(day: number): string | undefined {
	if (!(day >= FIRST_DAY && day <= LAST_DAY)) return undefined
	return new Date(day * DAY_MS).toISOString().slice(0, 10)
}

/** The date of a year, month (1-12, may run over) and day (1-31, may run over); fractions are cut off. */
export function toIsoDate(year: number, month: number, day: number): string | undefined {
	const months = Math.trunc(year) * 12 + Math.trunc(month) - 1
	const first = firstOfMonth(months)
	return first === undefined ? undefined : fromDayNumber(first + Math.trunc(day) - 1)
}

/** The ISO date so many days later; before, where they are negative. */
export function addDays(date: string, days: number): string | undefined {
	return fromDayNumber(toDayNumber(date) + Math.trunc(days))
}

/** The same day some months on, or the last of that month where it does not exist. */
export function addMonths(date: string, months: number): string | undefined {
	const [year = 0, month = 0, day = 0] = date.split('-').map(Number)
	const at = year * 12 + month - 1 + Math.trunc(months)
	const first = firstOfMonth(at)
	const next = firstOfMonth(at + 1)
	if (first === undefined || next === undefined) return undefined
	return fromDayNumber(first + Math.min(day, next - first) - 1)
}

const NO_HOLIDAYS: ReadonlySet<string> = new Set()

/** The date some working days on. Saturdays, Sundays and holidays do not count. Nought days give the date itself. */
export function addWorkdays(date: string, days: number, holidays = NO_HOLIDAYS): string | undefined {
	const wanted = Math.trunc(days)
	if (wanted === 0) return fromDayNumber(toDayNumber(date))
	// Past this, one day more is no other number, and the walk would never end.
	if (!(Math.abs(wanted) < MOST_WORKDAYS)) return undefined
	const step = wanted > 0 ? 1 : -1
	let day = skipWeeks(toDayNumber(date), wanted)
	if (holidays.size === 0) return fromDayNumber(day)
	// Each holiday that was passed over on a working day is made up for by one more working day.
	const closed = [...holidays].map(toDayNumber).filter((each) => !isWeekend(each))
	const closedDays = new Set(closed)
	const between = (from: number, to: number) =>
		[...closedDays].filter((each) => (step > 0 ? each > from && each <= to : each < from && each >= to)).length
	let owed = between(toDayNumber(date), day)
	while (owed > 0) {
		do day += step
		while (isWeekend(day))
		if (!closedDays.has(day)) owed--
		if (fromDayNumber(day) === undefined) return undefined
	}
	return fromDayNumber(day)
}

/** Working days from one date to another, both counted; negative where the second lies before the first. */
export function countWorkdays(from: string, to: string, holidays = NO_HOLIDAYS): number {
	const [first, last] = [toDayNumber(from), toDayNumber(to)]
	if (last < first) return -countWorkdays(to, from, holidays)
	const days = last - first + 1
	const weeks = Math.floor(days / 7)
	let count = weeks * 5
	for (let day = first + weeks * 7; day <= last; day++) if (!isWeekend(day)) count++
	for (const holiday of new Set(holidays)) {
		const day = toDayNumber(holiday)
		if (day >= first && day <= last && !isWeekend(day)) count--
	}
	return count
}

/** Counts working days by whole weeks and then one by one. */
function skipWeeks(from: number, wanted: number): number {
	const step = wanted > 0 ? 1 : -1
	let day = from
	// From a weekend, counting starts at the working day before it (after it, going back), so that whole weeks can be skipped.
	while (isWeekend(day)) day -= step
	const left = Math.abs(wanted)
	day += step * 7 * Math.floor(left / 5)
	for (let rest = left % 5; rest > 0; rest--) {
		do day += step
		while (isWeekend(day))
	}
	return day
}

/** 0 for Monday to 6 for Sunday. */
export function weekdayOf(day: number): number {
	return (((day + 3) % 7) + 7) % 7
}

/** The week of the year and the year it belongs to, by ISO 8601: week 1 holds the year's first Thursday. */
export function isoWeek(date: string): { readonly year: number; readonly week: number } {
	const day = toDayNumber(date)
	const thursday = day - weekdayOf(day) + 3
	// Computed by hand: the Thursday of the last days of 9999 lies past what `fromDayNumber` gives.
	const year = new Date(thursday * DAY_MS).getUTCFullYear()
	const first = new Date(0).setUTCFullYear(year, 0, 1) / DAY_MS
	return { year, week: Math.floor((thursday - first) / 7) + 1 }
}

/**
 * The weeks that a month stands in, each from Monday to Sunday, with the days of its neighbours that fill them: ISO dates.
 *
 *     weeksOf('2026-11')  →  [['2026-10-26', …, '2026-11-01'], …, ['2026-11-30', …, '2026-12-06']]
 */
export function weeksOf(month: string): string[][] {
	const first = toDayNumber(`${month}-01`)
	const next = toDayNumber(addMonths(`${month}-01`, 1) ?? `${month}-28`)
	const monday = first - weekdayOf(first)
	return Array.from({ length: Math.ceil((next - monday) / 7) }, (_week, w) =>
		Array.from({ length: 7 }, (_day, d) => fromDayNumber(monday + w * 7 + d) ?? '')
	)
}

/** Whether text is a date that exists, written as ISO 8601 does. */
export function isIsoDate(text: string): boolean {
	if (!/^\d{4}-\d{2}-\d{2}$/.test(text) || text.startsWith('0000')) return false
	const day = toDayNumber(text)
	return Number.isFinite(day) && fromDayNumber(day) === text
}

function isWeekend(day: number): boolean {
	return weekdayOf(day) >= 5
}

/** Day number of the first of a month, counted in months since the year 0. */
function firstOfMonth(months: number): number | undefined {
	if (!(months >= 12 && months <= 120_000)) return undefined
	const date = new Date(0)
	date.setUTCFullYear(Math.floor(months / 12), months % 12, 1)
	return date.getTime() / DAY_MS
}
