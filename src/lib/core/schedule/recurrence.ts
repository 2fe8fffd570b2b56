/**
 * What comes again and again: a rule of RFC 5545 (RRULE), read from its text and printed to it, in the part of it that a
 * routine needs. `working` goes beyond it: its days are working days, holidays taken out, which no RRULE can say.
 *
 * Source: RFC 5545, 3.3.10. When it comes is worked out in `occurrences.ts`.
 */
export const FREQUENCIES = ['daily', 'weekly', 'monthly', 'yearly'] as const
export type Frequency = (typeof FREQUENCIES)[number]

/** A day of the week, 0 for Monday to 6 for Sunday; `nth` of its month or year, from the end where negative, 0 for each. */
export interface NthDay {
	readonly nth: number
	readonly day: number
}

export interface Recurrence {
	readonly frequency: Frequency
	/** Every so many days, weeks, months or years. */
	readonly interval: number
	/** 1 to 12. */
	readonly months: readonly number[]
	/** 1 to 31, or from the end of the month: -1 is its last day. */
	readonly monthDays: readonly number[]
	readonly days: readonly NthDay[]
	/** Which of those of a period, from the end where negative. */
	readonly positions: readonly number[]
	readonly hours: readonly number[]
	readonly minutes: readonly number[]
	/** The day that weeks begin with, 0 for Monday. */
	readonly weekStart: number
	readonly count?: number | undefined
	/** Epoch ms; the last instant at which it may come. */
	readonly until?: number | undefined
	/** Working days alone: Monday to Friday without the holidays of the workspace. */
	readonly working: boolean
}

export const EVERY_DAY: Recurrence = {
	...{ frequency: 'daily', interval: 1, months: [], monthDays: [], days: [], positions: [] },
	...{ hours: [], minutes: [], weekStart: 0, working: false }
}

export type RecurrenceReading = { readonly rule: Recurrence } | { readonly message: string }

const DAY_CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const
export const WEEKDAYS: readonly NthDay[] = [0, 1, 2, 3, 4].map((day) => ({ nth: 0, day }))

/** Reads `FREQ=MONTHLY;BYDAY=-1FR`; what is wrong with it, or not supported, is said. */
export function parseRrule(text: string): RecurrenceReading {
	const parts = text
		.trim()
		.replace(/^RRULE:/i, '')
		.split(';')
		.filter((part) => part !== '')
	let rule: Recurrence = EVERY_DAY
	const seen = new Set<string>()
	for (const part of parts) {
		const [key = '', value = ''] = part.toUpperCase().split('=')
		if (seen.has(key)) return { message: `${key} stands twice in this rule.` }
		seen.add(key)
		const read = PARTS[key]?.(value)
		if (!read) return { message: `"${part}" cannot be read as a part of a rule (RRULE).` }
		rule = { ...rule, ...read }
	}
	if (!seen.has('FREQ')) return { message: 'A rule (RRULE) begins with FREQ=DAILY, WEEKLY, MONTHLY or YEARLY.' }
	if (seen.has('COUNT') && seen.has('UNTIL')) return { message: 'A rule ends by COUNT or by UNTIL, not by both.' }
	if (rule.days.some(({ nth }) => nth !== 0) && (rule.frequency === 'daily' || rule.frequency === 'weekly'))
		return { message: 'The first or last of a weekday is one of a month or a year: FREQ=MONTHLY.' }
	if (rule.monthDays.length > 0 && rule.frequency === 'weekly')
		return { message: 'A day of the month has no place in a week: FREQ=MONTHLY.' }
	return { rule }
}

/** The rule as RFC 5545 writes it. Working days are Monday to Friday there: holidays cannot be said. */
export function printRrule(rule: Recurrence): string {
	const listed = (key: string, values: readonly unknown[]) =>
		values.length === 0 ? [] : [`${key}=${values.join(',')}`]
	const days = rule.working && rule.days.length === 0 ? WEEKDAYS : rule.days
	return [
		`FREQ=${rule.frequency.toUpperCase()}`,
		...(rule.interval === 1 ? [] : [`INTERVAL=${rule.interval}`]),
		...listed('BYMONTH', rule.months),
		...listed('BYMONTHDAY', rule.monthDays),
		...listed(
			'BYDAY',
			days.map(({ nth, day }) => `${nth === 0 ? '' : nth}${DAY_CODES[day]}`)
		),
		...listed('BYHOUR', rule.hours),
		...listed('BYMINUTE', rule.minutes),
		...listed('BYSETPOS', rule.positions),
		...(rule.weekStart === 0 ? [] : [`WKST=${DAY_CODES[rule.weekStart]}`]),
		...(rule.count === undefined ? [] : [`COUNT=${rule.count}`]),
		...(rule.until === undefined ? [] : [`UNTIL=${printUntil(rule.until)}`])
	].join(';')
}

type ReadPart = (value: string) => Partial<Recurrence> | undefined

const PARTS: Readonly<Record<string, ReadPart>> = {
	FREQ: (value) => {
		const frequency = FREQUENCIES.find((each) => each === value.toLowerCase())
		return frequency && { frequency }
	},
	INTERVAL: (value) => positive(value, (interval) => ({ interval })),
	COUNT: (value) => positive(value, (count) => ({ count })),
	UNTIL: readUntil,
	BYMONTH: (value) => numbers(value, { from: 1, to: 12 }, (months) => ({ months })),
	BYMONTHDAY: (value) => numbers(value, { from: 1, to: 31, orBack: true }, (monthDays) => ({ monthDays })),
	BYSETPOS: (value) => numbers(value, { from: 1, to: 366, orBack: true }, (positions) => ({ positions })),
	BYHOUR: (value) => numbers(value, { from: 0, to: 23 }, (hours) => ({ hours })),
	BYMINUTE: (value) => numbers(value, { from: 0, to: 59 }, (minutes) => ({ minutes })),
	BYDAY: readDays,
	WKST: (value) => {
		const weekStart = DAY_CODES.findIndex((code) => code === value)
		return weekStart === -1 ? undefined : { weekStart }
	}
}

/** More often than any period has days it comes to nothing but waiting. */
const MOST = 10_000

function positive(value: string, give: (found: number) => Partial<Recurrence>): Partial<Recurrence> | undefined {
	const found = Number(value)
	return /^\d+$/.test(value) && found >= 1 && found <= MOST ? give(found) : undefined
}

function numbers(
	value: string,
	{ from, to, orBack = false }: { from: number; to: number; orBack?: boolean },
	give: (found: number[]) => Partial<Recurrence>
): Partial<Recurrence> | undefined {
	const found = value.split(',').map((each) => (/^[+-]?\d{1,3}$/.test(each) ? Number(each) : Number.NaN))
	const fits = (each: number) => (each >= from && each <= to) || (orBack && each <= -from && each >= -to)
	return found.every(fits) ? give(found) : undefined
}

/** `TU,-1FR` and, as it is met in the wild, `4TH` with its sign left out. */
function readDays(value: string): Partial<Recurrence> | undefined {
	const found = value.split(',').map((each) => {
		const [, nth = '', code = ''] = /^([+-]?\d{1,2})?(MO|TU|WE|TH|FR|SA|SU)$/.exec(each) ?? []
		return { nth: Number(nth), day: DAY_CODES.findIndex((known) => known === code) }
	})
	const fits = ({ nth, day }: NthDay) => day !== -1 && Math.abs(nth) <= 53
	return found.every(fits) ? { days: found } : undefined
}

function readUntil(value: string): Partial<Recurrence> | undefined {
	const found = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})Z)?$/.exec(value)
	if (!found) return undefined
	const [, year, month, day, hour = '23', minute = '59', second = '59'] = found
	const until = Date.parse(`${year}-${month}-${day}T${hour}:${minute}:${second}Z`)
	return Number.isNaN(until) ? undefined : { until }
}

function printUntil(until: number): string {
	return new Date(until)
		.toISOString()
		.replace(/\.\d+Z$/, 'Z')
		.replace(/[-:]/g, '')
}
