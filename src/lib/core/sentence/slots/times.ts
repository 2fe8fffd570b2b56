/** Slots that say when: days that come again and again, a time of day, so many days. */
import { parseRecurrence, tidyRecurrence } from '../../schedule/recurrence-words.ts'
import { clockOf, minutesOf } from '../../schedule/time-of-day.ts'
import { SPANS } from '../../document/parts.ts'
import { oneOf, type Reading, type SlotEntry } from './entry.ts'

export type Span = (typeof SPANS)[number]

export interface While {
	readonly many: number
	readonly span: Span
}

const OFTEN_WAITED: readonly While[] = [
	{ many: 4, span: 'hours' },
	{ many: 1, span: 'days' },
	{ many: 2, span: 'working days' },
	{ many: 5, span: 'working days' }
]

const OFTEN = [
	'every day',
	'every working day',
	'every Monday',
	'first working day of each month',
	'last working day of each month',
	'15th of each month'
]

export const recurrence: SlotEntry<string> = {
	isFormula: false,
	print: (value) => value,
	printExact: (value) => value,
	read: readRecurrence,
	readExact: readRecurrence,
	choices: () => OFTEN.map((value) => ({ value, text: value }))
}

export const timeOfDay: SlotEntry<string> = {
	isFormula: false,
	print: (value) => value,
	printExact: (value) => value,
	read: readTime,
	readExact: readTime
}

export const span = oneOf(SPANS)

export const aWhile: SlotEntry<While> = {
	isFormula: false,
	print: printWhile,
	printExact: printWhile,
	read: readWhile,
	readExact: readWhile,
	choices: () => OFTEN_WAITED.map((value) => ({ value, text: printWhile(value) }))
}

/** None is the day itself. */
export const days: SlotEntry<number> = {
	isFormula: false,
	print: (value) => String(value),
	printExact: (value) => String(value),
	read: readDays,
	readExact: readDays
}

function readRecurrence(text: string): Reading<string> {
	const read = parseRecurrence(text)
	return 'message' in read ? read : { value: tidyRecurrence(text) }
}

function readTime(text: string): Reading<string> {
	const minutes = minutesOf(text)
	return minutes === undefined
		? { message: `"${text.trim()}" is no time of day. Write it like 17:00.` }
		: { value: clockOf(minutes) }
}

function printWhile({ many, span }: While): string {
	return `${many} ${many === 1 ? span.slice(0, -1) : span}`
}

function readWhile(text: string): Reading<While> {
	const [, digits = '', words = ''] = /^(\d{1,4})\s+([a-z ]+)$/i.exec(text.trim()) ?? []
	const span = SPANS.find((each) => each === `${words.trim().toLowerCase().replace(/s$/, '')}s`)
	return span === undefined || Number(digits) < 1
		? { message: `"${text.trim()}" is no length of time. Write it like 2 hours, 3 days or 5 working days.` }
		: { value: { many: Number(digits), span } }
}

function readDays(text: string): Reading<number> {
	const [digits] = /^\d{1,4}/.exec(text.trim()) ?? []
	return digits === undefined
		? { message: `"${text.trim()}" is no number of days. Write it in digits, such as 3.` }
		: { value: Number(digits) }
}
