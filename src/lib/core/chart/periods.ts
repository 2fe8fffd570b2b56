/** Periods of dates as they stand in a row: those between the first and the last, whether anything lies in them, and their names. */
import { addDays, addMonths, isoWeek } from '../schedule/calendar.ts'
import { MONTHS } from '../table/show-times.ts'
import type { Step } from '../query/measure.ts'

/** All from the first to the last, at most so many, the latest of them. @param keys as `planMeasure` gives them */
export function periodsBetween(keys: readonly string[], step: Step, most: number): readonly string[] {
	const sorted = [...keys].sort()
	const [first, last] = [sorted[0], sorted.at(-1)]
	if (first === undefined || last === undefined) return []
	const found: string[] = []
	for (let at: string | undefined = last; at !== undefined && at >= first && found.length < most; at = before(at, step))
		found.unshift(at)
	return found
}

/** The day that a period begins with, as an ISO date. */
export function firstDayOf(period: string, step: Step): string {
	if (step === 'years') return `${period}-01-01`
	if (step === 'quarters') return `${period.slice(0, 4)}-${String(Number(period.slice(5)) * 3 - 2).padStart(2, '0')}-01`
	return step === 'months' ? `${period}-01` : period
}

/** What stands under its column; the year only where `withYear`. */
export function nameOfPeriod(period: string, step: Step, withYear: boolean): string {
	// With its apostrophe it is not taken for a day.
	const year = withYear ? ` ’${period.slice(2, 4)}` : ''
	const month = MONTHS[Number(period.slice(5, 7)) - 1]
	switch (step) {
		case 'years':
			return period
		case 'quarters':
			return `Q${period.slice(5)}${year}`
		case 'months':
			return `${month}${year}`
		case 'weeks':
			return `W${isoWeek(period).week}`
		case 'days':
			return `${Number(period.slice(8))} ${month}`
	}
}

/** Whether a period begins a year, after another one. */
export function beginsYear(period: string, before: string | undefined): boolean {
	return before === undefined || period.slice(0, 4) !== before.slice(0, 4)
}

function before(period: string, step: Step): string | undefined {
	switch (step) {
		case 'years':
			return String(Number(period) - 1).padStart(4, '0')
		case 'quarters':
			return asQuarter(addMonths(firstDayOf(period, step), -3))
		case 'months':
			return addMonths(`${period}-01`, -1)?.slice(0, 7)
		case 'weeks':
			return addDays(period, -7)
		case 'days':
			return addDays(period, -1)
	}
}

function asQuarter(day: string | undefined): string | undefined {
	return day && `${day.slice(0, 4)}-${Math.ceil(Number(day.slice(5, 7)) / 3)}`
}
