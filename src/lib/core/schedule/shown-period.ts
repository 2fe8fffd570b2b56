/** What of the year a calendar shows at once: a month, a week from Monday to Sunday, or the days of a month side by side. */
import {
	addDays,
	addMonths,
	fromDayNumber,
	isIsoDate,
	isoWeek,
	MONTH_NAMES,
	toDayNumber,
	weekdayOf,
	weeksOf
} from './calendar.ts'

export const CALENDAR_VIEWS = ['a month', 'a week', 'a timeline'] as const
export type CalendarView = (typeof CALENDAR_VIEWS)[number]

/** The name under which an address says what of the year a line shows; no line can call anything so. */
export const periodHeldBy = (line: string) => `when-${line}`

/** Dates are ISO 8601; `weeks`: the days in the rows that they stand in. */
export interface ShownPeriod {
	readonly view: CalendarView
	/** As it stands in an address: `2026-12`, `2026-W49` as ISO 8601 has it, `2026-12.timeline`. */
	readonly key: string
	/** The first and the last day that belong to it; a month stands with days of its neighbours round it. */
	readonly first: string
	readonly last: string
	readonly weeks: readonly (readonly string[])[]
	/** The keys of its neighbours; it is its own where there is none. */
	readonly before: string
	readonly after: string
}

/** The period of a key; that of a day, where the key says none. */
export function readPeriod(key: string, { day, view }: { day: string; view: CalendarView }): ShownPeriod {
	const [, year, week] = /^(\d{4})-W(\d{2})$/.exec(key) ?? []
	const monday = year && week ? mondayOf(Number(year), Number(week)) : undefined
	if (monday) return weekFrom(monday)
	const [, month, timeline] = /^(\d{4}-\d{2})(\.timeline)?$/.exec(key) ?? []
	if (month && isIsoDate(`${month}-01`)) return monthOf(month, timeline ? 'a timeline' : 'a month')
	return readPeriod(keyOfDay(day, view), { day, view })
}

/** The key of the period of a view in which a day lies. */
export function keyOfDay(day: string, view: CalendarView): string {
	if (view === 'a week') {
		const { year, week } = isoWeek(day)
		return `${String(year).padStart(4, '0')}-W${String(week).padStart(2, '0')}`
	}
	return `${day.slice(0, 7)}${view === 'a timeline' ? '.timeline' : ''}`
}

/** `December 2026`, `Week 49 of 2026`. */
export function nameOfShown({ view, first }: Pick<ShownPeriod, 'view' | 'first'>): string {
	if (view !== 'a week') return `${MONTH_NAMES[Number(first.slice(5, 7)) - 1]} ${Number(first.slice(0, 4))}`
	const { year, week } = isoWeek(first)
	return `Week ${week} of ${year}`
}

/** The Monday of a week as ISO 8601 counts them; undefined where the year has no such week. */
function mondayOf(year: number, week: number): string | undefined {
	// The fourth of January lies in the first.
	const fourth = toDayNumber(`${String(year).padStart(4, '0')}-01-04`)
	const monday = fromDayNumber(fourth - weekdayOf(fourth) + (week - 1) * 7)
	return monday !== undefined && week > 0 && isoWeek(monday).week === week ? monday : undefined
}

function weekFrom(monday: string): ShownPeriod {
	const days = Array.from({ length: 7 }, (_each, i) => addDays(monday, i) ?? monday)
	const [view, key] = ['a week', keyOfDay(monday, 'a week')] as const
	const keyAfter = (shift: number) => keyOfDay(addDays(monday, shift) ?? monday, view)
	return {
		...{ view, key, first: monday, last: days.at(-1) ?? monday, weeks: [days] },
		...{ before: keyAfter(-7), after: keyAfter(7) }
	}
}

function monthOf(month: string, view: 'a month' | 'a timeline'): ShownPeriod {
	const first = `${month}-01`
	const weeks = weeksOf(month)
	const days = weeks.flat().filter((day) => day.startsWith(month))
	const keyAfter = (months: number) => keyOfDay(addMonths(first, months) ?? first, view)
	return {
		...{
			view,
			key: keyOfDay(first, view),
			first,
			last: days.at(-1) ?? first,
			weeks: view === 'a month' ? weeks : [days]
		},
		...{ before: keyAfter(-1), after: keyAfter(1) }
	}
}
