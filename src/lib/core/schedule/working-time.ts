/** The working week of a workspace: on which days people work, between which hours, and on which days nobody does. */
import { fromDayNumber, toDayNumber, weekdayOf } from './calendar.ts'

export interface WorkingTime {
	/** Days of the week, Monday as 0. */
	readonly week: readonly number[]
	/** Minutes after midnight. */
	readonly from: number
	readonly until: number
	/** Days on which nobody works, as ISO dates. */
	readonly holidays: ReadonlySet<string>
}

/** Where nothing is said. */
export const USUAL_WEEK: readonly number[] = [0, 1, 2, 3, 4]
export const USUAL_HOURS = { from: '09:00', until: '17:00' } as const

const DAY_MS = 86_400_000
const MINUTE_MS = 60_000
/** A calendar in which nobody ever works would be looked through without end. */
const MOST_IDLE_DAYS = 4_000

export function isWorkingDay(date: string, { week, holidays }: Pick<WorkingTime, 'week' | 'holidays'>): boolean {
	return week.includes(weekdayOf(toDayNumber(date))) && !holidays.has(date)
}

/** The date some working days on; undefined past the end of the calendar, or where nobody works. */
export function addWorkingDays(date: string, days: number, working: WorkingTime): string | undefined {
	let day = toDayNumber(date)
	for (let left = days, idle = 0; left > 0 && idle < MOST_IDLE_DAYS;) {
		day++
		const next = fromDayNumber(day)
		if (next === undefined) return undefined
		if (isWorkingDay(next, working)) {
			left--
			idle = 0
		} else if (++idle === MOST_IDLE_DAYS) return undefined
	}
	return fromDayNumber(day)
}

/**
 * The moment after some minutes of working time, counted from one outside of it as from when work begins next. Moments are of the
 * wall clock: epoch ms as though the clock stood in UTC. Undefined past the end of the calendar, or where nobody works.
 */
export function addWorkingMinutes(wall: number, minutes: number, working: WorkingTime): number | undefined {
	const { from, until } = working
	let left = minutes
	let at = wall
	for (let idle = 0; idle < MOST_IDLE_DAYS; idle++) {
		const midnight = Math.floor(at / DAY_MS) * DAY_MS
		const date = fromDayNumber(midnight / DAY_MS)
		if (date === undefined) return undefined
		const [opens, shuts] = [midnight + from * MINUTE_MS, midnight + until * MINUTE_MS]
		const begins = Math.max(at, opens)
		if (isWorkingDay(date, working) && begins < shuts) {
			const there = (shuts - begins) / MINUTE_MS
			if (left <= there) return begins + left * MINUTE_MS
			left -= there
			idle = 0
		}
		at = midnight + DAY_MS
	}
	return undefined
}
