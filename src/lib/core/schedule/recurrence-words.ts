/**
 * What comes again and again, in words: "every working day", "last Friday of each month", "every 2 weeks on Tuesday". A rule of
 * RFC 5545 is taken too, and said in words where there are some for it.
 */
import { MONTH_NAMES, WEEKDAY_NAMES } from './calendar.ts'
import {
	EVERY_DAY,
	parseRrule,
	printRrule,
	WEEKDAYS,
	type NthDay,
	type Recurrence,
	type RecurrenceReading
} from './recurrence.ts'

export const HOW_TO_SAY =
	'Say it like "every day", "every working day", "every Monday and Thursday", "every 2 weeks on Tuesday", "15th of each month", "last working day of each month", "each year on 28 February", or as a rule (FREQ=…).'

export function parseRecurrence(text: string): RecurrenceReading {
	const words = text.trim().replaceAll(/\s+/g, ' ')
	if (/^(RRULE:)?FREQ=/i.test(words)) return parseRrule(words)
	const said = words
		.toLowerCase()
		.replace(/^on (the )?/, '')
		.replace(/^the /, '')
	for (const read of READINGS) {
		const rule = read(said)
		if (rule) return { rule: { ...EVERY_DAY, ...rule } }
	}
	return { message: `"${text}" says no days. ${HOW_TO_SAY}` }
}

/** In words where there are some that mean just this, else as RFC 5545 writes it. */
export function sayRecurrence(rule: Recurrence): string {
	const words = wordsFor(rule)
	if (words !== undefined) {
		const again = parseRecurrence(words)
		if ('rule' in again && isSame(again.rule, rule)) return words
	}
	return printRrule(rule)
}

/** A text as `sayRecurrence` would write it; as it stands where it cannot be read. */
export function tidyRecurrence(text: string): string {
	const read = parseRecurrence(text)
	return 'rule' in read ? sayRecurrence(read.rule) : text
}

type Rule = Partial<Recurrence>
type Read = (said: string) => Rule | undefined

const PLACES = ['first', 'second', 'third', 'fourth', 'fifth'] as const
const DAY_NAMES = WEEKDAY_NAMES.map((name) => name.toLowerCase())
const SMALL_MONTHS = MONTH_NAMES.map((name) => name.toLowerCase())

const READINGS: readonly Read[] = [
	(said) => (/^(every|each) day$/.test(said) ? { frequency: 'daily' } : undefined),
	(said) => (/^(every|each) working day$/.test(said) ? { frequency: 'daily', working: true } : undefined),
	(said) => everySo(said, /^every (\d+) days$/, 'daily'),
	(said) => {
		const days = daysNamed(/^(?:every|each) (.+)$/.exec(said)?.[1])
		return days && { frequency: 'weekly', days }
	},
	(said) => {
		const [, many, named] = /^every (\d+|second|third|fourth) weeks? on (.+)$/.exec(said) ?? []
		const days = daysNamed(named)
		const interval = numberFrom(many)
		return days && interval ? { frequency: 'weekly', interval, days } : undefined
	},
	(said) => {
		const [, place, rest] = /^(?:the )?(.+?) of (each month|every \d+ months)$/.exec(said) ?? []
		const days = place === undefined ? undefined : daysOfMonth(place)
		const interval = Number(/\d+/.exec(rest ?? '')?.[0] ?? 1)
		return days && interval >= 1 ? { frequency: 'monthly', interval, ...days } : undefined
	},
	(said) => {
		const [, day, month] = /^(?:each|every) year on (\d{1,2})(?:st|nd|rd|th)? ([a-z]+)$/.exec(said) ?? []
		const at = SMALL_MONTHS.indexOf(month ?? '') + 1
		return at > 0 && isDayOfMonth(Number(day))
			? { frequency: 'yearly', months: [at], monthDays: [Number(day)] }
			: undefined
	}
]

function everySo(said: string, pattern: RegExp, frequency: Recurrence['frequency']): Rule | undefined {
	const interval = Number(pattern.exec(said)?.[1] ?? 0)
	return interval >= 1 && interval <= 10_000 ? { frequency, interval } : undefined
}

/** `last working day`, `second Monday`, `15th and 30th`, `last day`. */
function daysOfMonth(place: string): Rule | undefined {
	const [, nth = '', what = ''] = /^(first|second|third|fourth|fifth|last) (.+)$/.exec(place) ?? []
	const at = nth === 'last' ? -1 : PLACES.findIndex((each) => each === nth) + 1
	if (what === 'working day') return { working: true, positions: [at] }
	if (what === 'day') return at === -1 || at > 0 ? { monthDays: [at] } : undefined
	const day = DAY_NAMES.indexOf(what)
	if (day !== -1) return { days: [{ nth: at, day }] }
	const days = listed(place).map((each) => Number(/^(\d{1,2})(?:st|nd|rd|th)?$/.exec(each)?.[1] ?? Number.NaN))
	return days.length > 0 && days.every(isDayOfMonth) ? { monthDays: days } : undefined
}

function daysNamed(text: string | undefined): NthDay[] | undefined {
	if (text === undefined) return undefined
	const days = listed(text).map((name) => ({ nth: 0, day: DAY_NAMES.indexOf(name) }))
	return days.length > 0 && days.every(({ day }) => day !== -1) ? days : undefined
}

function listed(text: string): string[] {
	return text.split(/, and |, | and /).filter((each) => each !== '')
}

function isDayOfMonth(day: number): boolean {
	return Number.isInteger(day) && day >= 1 && day <= 31
}

function numberFrom(text: string | undefined): number | undefined {
	const place = PLACES.findIndex((each) => each === text) + 1
	const found = place > 0 ? place : Number(text)
	return found >= 1 && found <= 10_000 ? found : undefined
}

function wordsFor(rule: Recurrence): string | undefined {
	const { frequency, interval, days, monthDays, months, positions, working } = rule
	if (frequency === 'daily') {
		if (working) return 'every working day'
		return interval === 1 ? 'every day' : `every ${interval} days`
	}
	if (frequency === 'weekly') {
		const named = joined(days.map(({ day }) => WEEKDAY_NAMES[day] ?? ''))
		return interval === 1 ? `every ${named}` : `every ${interval} weeks on ${named}`
	}
	if (frequency === 'yearly') return `each year on ${monthDays[0]} ${MONTH_NAMES[(months[0] ?? 0) - 1]}`
	const of = interval === 1 ? 'of each month' : `of every ${interval} months`
	const isWorking = working || isSame({ ...rule, days: WEEKDAYS }, rule)
	if (isWorking && positions.length === 1) return `${placeName(positions[0])} working day ${of}`
	const [first] = days
	if (first) return `${placeName(first.nth)} ${WEEKDAY_NAMES[first.day]} ${of}`
	if (monthDays[0] === -1) return `last day ${of}`
	return `${joined(monthDays.map(ordinal))} ${of}`
}

function placeName(nth: number | undefined): string {
	return nth === -1 ? 'last' : (PLACES[(nth ?? 0) - 1] ?? '')
}

function ordinal(day: number): string {
	const tens = day % 100
	const ending = tens >= 11 && tens <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][day % 10] ?? 'th')
	return `${day}${ending}`
}

function joined(names: readonly string[]): string {
	return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`
}

function isSame(one: Recurrence, other: Recurrence): boolean {
	return printRrule(one) === printRrule(other) && one.working === other.working
}
