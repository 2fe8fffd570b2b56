/**
 * When a rule comes: the days of each of its periods one after the other, on the wall clock of a zone.
 *
 * - Months without a day that is asked for are passed over, as RFC 5545 says; an hour that spring leaves out comes as many
 *   minutes after the gap began as it lay within it, and one that autumn has twice comes the first time.
 * - A rule that never comes ends after `MOST_PERIODS` periods.
 *
 * Checked against the rows of `tests/checks/dates.json` and, in generated rules, against the library `rrule`.
 */
import { addDays, addMonths, fromDayNumber, toDayNumber, weekdayOf } from './calendar.ts'
import type { Recurrence } from './recurrence.ts'
import { isWorkingDay, USUAL_WEEK } from './working-time.ts'
import { instantAt, localDate } from './zone.ts'

export interface Anchor {
	/** The first day that it may come on, an ISO date, and the minutes after midnight that it comes at. */
	readonly date: string
	readonly minutes: number
	/** Of the IANA database. */
	readonly zone: string
	/** Days of the week on which people work, Monday as 0; Monday to Friday, if left out. */
	readonly week?: readonly number[]
	/** Days on which nobody works. */
	readonly holidays?: ReadonlySet<string>
}

/** In which it may not come at all before it is taken never to: half a century of days, some centuries of the others. */
const MOST_PERIODS = { daily: 20_000, weekly: 5_000, monthly: 5_000, yearly: 500 }
const DAY_MINUTES = 1_440

/** The instants (epoch ms) at which a rule comes, in their order, from its anchor on. */
export function* occurrences(rule: Recurrence, anchor: Anchor): Generator<number> {
	yield* walk(rule, anchor, 0)
}

/** The first time after an instant (epoch ms); undefined where it comes no more. */
export function nextOccurrence(rule: Recurrence, anchor: Anchor, after: number): number | undefined {
	// One that is counted must be counted from its beginning.
	const from = rule.count === undefined ? Math.max(0, periodsUntil(rule, anchor, after) - 1) : 0
	for (const at of walk(rule, anchor, from)) if (at > after) return at
	return undefined
}

function* walk(rule: Recurrence, anchor: Anchor, from: number): Generator<number> {
	let left = rule.count ?? Infinity
	let idle = 0
	const times = timesOf(rule, anchor)
	for (let period = from; idle < MOST_PERIODS[rule.frequency]; period++) {
		const days = daysOfPeriod(rule, anchor, period)
		if (days === undefined) return
		idle++
		for (const { date, minutes } of positioned(rule, days, times)) {
			if (date < anchor.date) continue
			const at = Date.parse(instantAt(`${date}T${clock(minutes)}:00.000`, anchor.zone))
			if (rule.until !== undefined && at > rule.until) return
			if (left-- <= 0) return
			idle = 0
			yield at
		}
	}
}

function timesOf({ hours, minutes }: Recurrence, anchor: Anchor): number[] {
	const ofHours = hours.length > 0 ? hours : [Math.floor(anchor.minutes / 60)]
	const ofMinutes = minutes.length > 0 ? minutes : [anchor.minutes % 60]
	return ofHours.flatMap((hour) => ofMinutes.map((minute) => hour * 60 + minute)).toSorted((a, b) => a - b)
}

interface Moment {
	readonly date: string
	readonly minutes: number
}

/** All times of a period, or those of them that are asked for by their place. */
function positioned({ positions }: Recurrence, days: readonly string[], times: readonly number[]): Moment[] {
	const all = days.flatMap((date) => times.map((minutes) => ({ date, minutes })))
	if (positions.length === 0) return all
	const places = positions.map((place) => (place > 0 ? place - 1 : all.length + place))
	return all.filter((_each, i) => places.includes(i))
}

/** The days of a period, counted from that of the anchor, that fit the rule; undefined past the calendar's end. */
function daysOfPeriod(rule: Recurrence, anchor: Anchor, period: number): string[] | undefined {
	const bounds = boundsOf(rule, anchor.date, period * rule.interval)
	if (!bounds) return undefined
	const days = Array.from({ length: bounds.to - bounds.from }, (_day, i) => fromDayNumber(bounds.from + i) ?? '')
	return days.filter((date) => date !== '' && fits(rule, anchor, date))
}

interface Days {
	/** Day numbers; `to` is the first that is not of it. */
	readonly from: number
	readonly to: number
}

function boundsOf({ frequency, weekStart }: Recurrence, date: string, away: number): Days | undefined {
	const first = toDayNumber(date)
	switch (frequency) {
		case 'daily':
			return within(first + away, first + away + 1)
		case 'weekly': {
			const start = first - ((weekdayOf(first) - weekStart + 7) % 7) + away * 7
			return within(start, start + 7)
		}
		case 'monthly':
			return monthsFrom(`${date.slice(0, 7)}-01`, away, 1)
		case 'yearly':
			return monthsFrom(`${date.slice(0, 4)}-01-01`, away * 12, 12)
	}
}

function monthsFrom(first: string, away: number, length: number): Days | undefined {
	const [start, end] = [addMonths(first, away), addMonths(first, away + length)]
	return start === undefined || end === undefined ? undefined : { from: toDayNumber(start), to: toDayNumber(end) }
}

function within(from: number, to: number): Days | undefined {
	return fromDayNumber(from) === undefined ? undefined : { from, to }
}

function fits(rule: Recurrence, anchor: Anchor, date: string): boolean {
	const [year = 0, month = 0, day = 0] = date.split('-').map(Number)
	if (rule.months.length > 0 && !rule.months.includes(month)) return false
	if (rule.working && !isWorkingDay(date, { week: anchor.week ?? USUAL_WEEK, holidays: anchor.holidays ?? NO_DAYS }))
		return false
	const length = lengthOfMonth(date)
	if (rule.monthDays.length > 0 && !rule.monthDays.some((each) => (each > 0 ? each : length + 1 + each) === day))
		return false
	if (rule.days.length > 0) return fitsDay(rule, { date, day, length, year })
	return rule.monthDays.length > 0 || rule.working || fitsAnchor(rule, anchor.date, date)
}

function fitsDay(
	{ frequency, months, days }: Recurrence,
	{ date, day, length, year }: { date: string; day: number; length: number; year: number }
): boolean {
	const number = toDayNumber(date)
	const weekday = weekdayOf(number)
	// Of a yearly rule that names no month, the first Monday is that of the year.
	const isOfYear = frequency === 'yearly' && months.length === 0
	const first = toDayNumber(`${String(year).padStart(4, '0')}-01-01`)
	const place = isOfYear ? number - first : day - 1
	const left = isOfYear ? first + lengthOfYear(year) - 1 - number : length - day
	return days.some((each) => {
		if (each.day !== weekday) return false
		if (each.nth === 0) return true
		return each.nth > 0 ? Math.floor(place / 7) + 1 === each.nth : Math.floor(left / 7) + 1 === -each.nth
	})
}

/** What a rule leaves open it takes from the day that it began on. */
function fitsAnchor({ frequency, months }: Recurrence, began: string, date: string): boolean {
	if (frequency === 'daily') return true
	if (frequency === 'weekly') return weekdayOf(toDayNumber(began)) === weekdayOf(toDayNumber(date))
	if (frequency === 'monthly' || months.length > 0) return began.slice(8) === date.slice(8)
	return began.slice(5) === date.slice(5)
}

const NO_DAYS: ReadonlySet<string> = new Set()

function lengthOfMonth(date: string): number {
	const first = `${date.slice(0, 7)}-01`
	return toDayNumber(addMonths(first, 1) ?? addDays(first, 31) ?? first) - toDayNumber(first)
}

function lengthOfYear(year: number): number {
	return (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0 ? 366 : 365
}

/** About how many periods lie before an instant: never more than there are. */
function periodsUntil({ frequency, interval }: Recurrence, { date, zone }: Anchor, after: number): number {
	if (!Number.isFinite(after)) return 0
	const day = localDate(new Date(Math.min(Math.max(after, -6e13), 2.5e14)).toISOString(), zone)
	const days = toDayNumber(day) - toDayNumber(date)
	const months =
		(Number(day.slice(0, 4)) - Number(date.slice(0, 4))) * 12 + Number(day.slice(5, 7)) - Number(date.slice(5, 7))
	const periods = { daily: days, weekly: Math.floor(days / 7), monthly: months, yearly: Math.floor(months / 12) }
	return Math.floor(periods[frequency] / interval)
}

function clock(minutes: number): string {
	const at = ((minutes % DAY_MINUTES) + DAY_MINUTES) % DAY_MINUTES
	return `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`
}
