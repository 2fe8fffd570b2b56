/**
 * Times of day, spans of time, and instants. OpenFormula 6.10 (clause from memory).
 *
 * A span is a number of days, as there: half an hour is 1/48. An instant is read in the workspace's time zone, which the
 * checker passes as the last argument.
 */
import { toDayNumber } from '../../schedule/calendar.ts'
import { localDate, localTime } from '../../schedule/zone.ts'
import { BAD_NUMBER, type FunctionEntry } from '../../model/formula.ts'
import { family } from './define.ts'

const dates = family('dates')

const MOMENT = [
	{ name: 'moment', type: 'text' },
	{ name: 'zone', type: 'text' }
] as const

export const TIME_FUNCTIONS: readonly FunctionEntry[] = [
	dates({
		name: 'TIME',
		parameters: [
			{ name: 'hours', type: 'number' },
			{ name: 'minutes', type: 'number' },
			{ name: 'seconds', type: 'number' }
		],
		result: 'duration',
		doc: 'A time of day, or a span of time, from hours, minutes and seconds.',
		examples: [['HOUR(TIME(14; 30; 0))', '14']],
		canFail: true,
		evaluate: (hours, minutes, seconds) => (hours * 3600 + minutes * 60 + seconds) / 86_400
	}),
	dates({
		name: 'HOUR',
		parameters: [{ name: 'time', type: 'time' }],
		result: 'number',
		doc: 'The hour of a time, 0 to 23.',
		examples: [['HOUR(TIME(14; 30; 0))', '14']],
		canFail: false,
		evaluate: (time) => Math.floor(secondsOf(time) / 3600)
	}),
	dates({
		name: 'MINUTE',
		parameters: [{ name: 'time', type: 'time' }],
		result: 'number',
		doc: 'The minute of a time, 0 to 59.',
		examples: [['MINUTE(TIME(14; 30; 0))', '30']],
		canFail: false,
		evaluate: (time) => Math.floor(secondsOf(time) / 60) % 60
	}),
	dates({
		name: 'SECOND',
		parameters: [{ name: 'time', type: 'time' }],
		result: 'number',
		doc: 'The second of a time, 0 to 59.',
		examples: [['SECOND(TIME(14; 30; 15))', '15']],
		canFail: false,
		evaluate: (time) => secondsOf(time) % 60
	})
]

/** The date of an instant where the workspace is; written by the checker where a date is wanted. */
export const DATE_OF_MOMENT: FunctionEntry = dates({
	name: 'DATE.OF',
	parameters: MOMENT,
	result: 'date',
	doc: 'The date of an instant.',
	examples: [],
	canFail: false,
	evaluate: (moment, zone) => (moment === '' ? null : localDate(moment, zone))
})

/** The time of day of an instant where the workspace is; written by the checker where a time is wanted. */
export const TIME_OF_MOMENT: FunctionEntry = dates({
	name: 'TIME.OF',
	parameters: MOMENT,
	result: 'duration',
	doc: 'The time of day of an instant.',
	examples: [],
	canFail: false,
	evaluate: (moment, zone) => (moment === '' ? null : localTime(moment, zone))
})

/** The checker writes `moment + time` as this call. */
export const ADD_TIME: FunctionEntry = dates({
	name: 'ADD.TIME',
	parameters: [
		{ name: 'moment', type: 'text' },
		{ name: 'time', type: 'time' }
	],
	result: 'datetime',
	doc: 'The instant some time later.',
	examples: [],
	canFail: true,
	evaluate: (moment, time) => {
		if (moment === '') return null
		const at = Date.parse(moment) + Math.round(time * 86_400_000)
		return at >= FIRST_INSTANT && at <= LAST_INSTANT ? new Date(at).toISOString() : BAD_NUMBER
	}
})

/** The checker writes `moment - moment` as this call. */
export const TIME_BETWEEN: FunctionEntry = dates({
	name: 'TIME.BETWEEN',
	parameters: [
		{ name: 'end', type: 'text' },
		{ name: 'start', type: 'text' }
	],
	result: 'duration',
	doc: 'The span of time from start to end.',
	examples: [],
	canFail: false,
	evaluate: (end, start) => (end === '' || start === '' ? null : (Date.parse(end) - Date.parse(start)) / 86_400_000)
})

const FIRST_INSTANT = toDayNumber('0001-01-01') * 86_400_000
const LAST_INSTANT = (toDayNumber('9999-12-31') + 1) * 86_400_000 - 1

/** Seconds since midnight, to the nearest: 0.1 + 0.2 of a day is no whole number of seconds in binary. */
function secondsOf(time: number): number {
	const seconds = Math.round(time * 86_400) % 86_400
	return seconds < 0 ? seconds + 86_400 : seconds
}
