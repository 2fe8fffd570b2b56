/**
 * Calendar sums on ISO dates (`2026-11-23`), by the proleptic Gregorian calendar, years 1 to 9999.
 *
 * Every function gives undefined where the result would leave those years. No time zones, no clock.
 */

const DAY_MS = 86_400_000
const FIRST_DAY = Date.UTC(2001, 0, 1) / DAY_MS - 730_485
const LAST_DAY = Date.UTC(9999, 11, 31) / DAY_MS

/** Days since 1970-01-01; NaN for text that is no date. */
export function toDayNumber(date: string): number {
	return Date.parse(`${date}T00:00:00Z`) / DAY_MS
}

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

/** The date some working days on; Saturdays and Sundays do not count. Nought days give the date itself. */
export function addWorkdays(date: string, days: number): string | undefined {
	const wanted = Math.trunc(days)
	if (wanted === 0) return fromDayNumber(toDayNumber(date))
	const step = wanted > 0 ? 1 : -1
	let day = toDayNumber(date)
	// From a weekend, counting starts at the working day before it (after it, going back), so that whole weeks can be skipped.
	while (isWeekend(day)) day -= step
	const left = Math.abs(wanted)
	day += step * 7 * Math.floor(left / 5)
	for (let rest = left % 5; rest > 0; rest--) {
		day += step
		while (isWeekend(day)) day += step
	}
	return fromDayNumber(day)
}

/** 0 for Monday to 6 for Sunday. */
export function weekdayOf(day: number): number {
	return (((day + 3) % 7) + 7) % 7
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
