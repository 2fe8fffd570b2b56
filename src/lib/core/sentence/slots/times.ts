/** Slots that say when: days that come again and again, a time of day, so many days. */
import { parseRecurrence, tidyRecurrence } from '../../schedule/recurrence-words.ts'
import { clockOf, minutesOf } from '../../schedule/time-of-day.ts'
import type { Reading, SlotEntry } from './entry.ts'

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

function readDays(text: string): Reading<number> {
	const [digits] = /^\d{1,4}/.exec(text.trim()) ?? []
	return digits === undefined
		? { message: `"${text.trim()}" is no number of days. Write it in digits, such as 3.` }
		: { value: Number(digits) }
}
