/** Dates by the proleptic Gregorian calendar, years 1 to 9999. OpenFormula 6.10 (clause from memory). */
import {
	addDays,
	addMonths,
	addWorkdays,
	countWorkdays,
	isoWeek,
	toDayNumber,
	toIsoDate,
	weekdayOf
} from '../../schedule/calendar.ts'
import { raw, sql, type Sql } from '../../sql/sql.ts'
import { BAD_NUMBER, BAD_VALUE, type FunctionEntry, type Value } from '../../model/formula.ts'
import { family } from './define.ts'

const dates = family('dates')

const ONE_DATE = [{ name: 'date', type: 'date' }] as const
const HOLIDAYS = { name: 'holidays', type: 'dates', otherwise: [] } as const

export const DATE_FUNCTIONS: readonly FunctionEntry[] = [
	dates({
		name: 'DATE',
		parameters: [
			{ name: 'year', type: 'number' },
			{ name: 'month', type: 'number' },
			{ name: 'day', type: 'number' }
		],
		result: 'date',
		doc: 'The date of a year, month and day. A month or day past its end runs on into the next.',
		examples: [
			['DATE(2024; 13; 1)', '2025-01-01'],
			['DATE(2024; 3; 0)', '2024-02-29']
		],
		canFail: true,
		evaluate: (year, month, day) => toIsoDate(year, month, day) ?? BAD_NUMBER
	}),
	dates({
		name: 'YEAR',
		parameters: ONE_DATE,
		result: 'number',
		doc: 'The year of a date.',
		examples: [['YEAR(DATE(2024; 2; 9))', '2024']],
		canFail: false,
		rises: true,
		evaluate: (date) => partOf(date, 0),
		sql: (date) => numberAt(date, 1, 4)
	}),
	dates({
		name: 'MONTH',
		parameters: ONE_DATE,
		result: 'number',
		doc: 'The month of a date, 1 to 12.',
		examples: [['MONTH(DATE(2024; 2; 9))', '2']],
		canFail: false,
		evaluate: (date) => partOf(date, 1),
		sql: (date) => numberAt(date, 6, 2)
	}),
	dates({
		name: 'DAY',
		parameters: ONE_DATE,
		result: 'number',
		doc: 'The day of a date in its month, 1 to 31.',
		examples: [['DAY(DATE(2024; 2; 9))', '9']],
		canFail: false,
		evaluate: (date) => partOf(date, 2),
		sql: (date) => numberAt(date, 9, 2)
	}),
	dates({
		name: 'EDATE',
		parameters: [
			{ name: 'start', type: 'date' },
			{ name: 'months', type: 'number' }
		],
		result: 'date',
		doc: 'The date some months later (or earlier); the last day of the month where the day does not exist.',
		examples: [['EDATE(DATE(2024; 3; 31); -1)', '2024-02-29']],
		canFail: true,
		rises: true,
		evaluate: (start, months) => addMonths(start, months) ?? BAD_NUMBER
	}),
	dates({
		name: 'EOMONTH',
		parameters: [
			{ name: 'start', type: 'date' },
			{ name: 'months', type: 'number' }
		],
		result: 'date',
		doc: 'The last day of the month, some months later (or earlier).',
		examples: [['EOMONTH(DATE(2024; 1; 15); 1)', '2024-02-29']],
		canFail: true,
		rises: true,
		evaluate: (start, months) => {
			const [year = 0, month = 0] = start.split('-').map(Number)
			return toIsoDate(year, month + Math.trunc(months) + 1, 0) ?? BAD_NUMBER
		}
	}),
	dates({
		name: 'DAYS',
		parameters: [
			{ name: 'end', type: 'date' },
			{ name: 'start', type: 'date' }
		],
		result: 'number',
		doc: 'The number of days from start to end.',
		examples: [['DAYS(DATE(2024; 3; 1); DATE(2024; 2; 1))', '29']],
		canFail: false,
		rises: true,
		evaluate: (end, start) => toDayNumber(end) - toDayNumber(start),
		sql: (end, start) => sql`(julianday(${end}) - julianday(${start}))`
	}),
	dates({
		name: 'WEEKDAY',
		parameters: [
			{ name: 'date', type: 'date' },
			{ name: 'counted', type: 'number', otherwise: 1 }
		],
		result: 'number',
		doc: 'The day of the week as a number. Counted 1: Sunday is 1. Counted 2: Monday is 1. Counted 3: Monday is 0. 11 to 17: Monday to Sunday is 1.',
		examples: [['WEEKDAY(DATE(2024; 1; 8); 2)', '1']],
		canFail: true,
		evaluate: weekday
	}),
	dates({
		name: 'WEEKNUM',
		parameters: [
			{ name: 'date', type: 'date' },
			{ name: 'counted', type: 'number', otherwise: 1 }
		],
		result: 'number',
		doc: 'The week of the year; week 1 holds 1 January. Counted 1: weeks start on Sunday, 2: on Monday, 11 to 17: on Monday to Sunday, 21: by ISO 8601.',
		examples: [['WEEKNUM(DATE(2024; 1; 7))', '2']],
		canFail: true,
		evaluate: weekNumber
	}),
	dates({
		name: 'ISOWEEKNUM',
		parameters: ONE_DATE,
		result: 'number',
		doc: 'The week of the year by ISO 8601: week 1 holds the first Thursday.',
		examples: [['ISOWEEKNUM(DATE(2020; 12; 31))', '53']],
		canFail: false,
		evaluate: (date) => isoWeek(date).week
	}),
	dates({
		name: 'WORKDAY',
		parameters: [{ name: 'start', type: 'date' }, { name: 'days', type: 'number' }, HOLIDAYS],
		result: 'date',
		doc: 'The date some working days later (or earlier). Saturdays, Sundays and the holidays are no working days.',
		examples: [['WORKDAY(DATE(2024; 1; 5); 1)', '2024-01-08']],
		canFail: true,
		rises: true,
		evaluate: (start, days, holidays) => addWorkdays(start, days, new Set(holidays)) ?? BAD_NUMBER
	}),
	dates({
		name: 'NETWORKDAYS',
		parameters: [{ name: 'from', type: 'date' }, { name: 'to', type: 'date' }, HOLIDAYS],
		result: 'number',
		doc: 'The working days from one date to another, both counted. Saturdays, Sundays and the holidays are no working days.',
		examples: [['NETWORKDAYS(DATE(2024; 1; 1); DATE(2024; 1; 31))', '23']],
		canFail: false,
		evaluate: (from, to, holidays) => countWorkdays(from, to, new Set(holidays)) + 0
	})
]

/** Adds days to a date; the checker writes `date + number` as this call. */
export const ADD_DAYS: FunctionEntry = dates({
	name: 'ADD.DAYS',
	parameters: [
		{ name: 'start', type: 'date' },
		{ name: 'days', type: 'number' }
	],
	result: 'date',
	doc: 'The date some days later.',
	examples: [],
	canFail: true,
	rises: true,
	evaluate: (start, days) => addDays(start, days) ?? BAD_NUMBER
})

function partOf(date: string, part: 0 | 1 | 2): number {
	return Number(date.split('-')[part])
}

function numberAt(date: Sql, from: number, length: number): Sql {
	return sql`CAST(substr(${date}, ${raw(String(from))}, ${raw(String(length))}) AS REAL)`
}

/** Which day, 0 for Monday, a way of counting starts with; undefined for ways that do not exist. */
function firstDayOf(counted: number): number | undefined {
	if (counted === 1) return 6
	if (counted === 2) return 0
	return counted >= 11 && counted <= 17 ? counted - 11 : undefined
}

function weekday(date: string, counted: number): Value {
	const day = weekdayOf(toDayNumber(date))
	if (Math.trunc(counted) === 3) return day
	const first = firstDayOf(Math.trunc(counted))
	return first === undefined ? BAD_VALUE : ((day - first + 7) % 7) + 1
}

function weekNumber(date: string, counted: number): Value {
	const way = Math.trunc(counted)
	if (way === 21 || way === 150) return isoWeek(date).week
	const first = firstDayOf(way)
	if (first === undefined) return BAD_VALUE
	const newYear = toDayNumber(`${date.slice(0, 4)}-01-01`)
	const lead = (weekdayOf(newYear) - first + 7) % 7
	return Math.floor((toDayNumber(date) - newYear + lead) / 7) + 1
}
