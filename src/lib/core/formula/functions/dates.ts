import { addDays, addMonths, addWorkdays, toDayNumber, toIsoDate } from '../../schedule/calendar.ts'
import { BAD_NUMBER, type FunctionEntry } from '../types.ts'

/** Dates by the proleptic Gregorian calendar, years 1 to 9999. OpenFormula 6.10 (clause from memory). */
export const DATE_FUNCTIONS: readonly FunctionEntry[] = [
	{
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
		evaluate: (year, month, day) => toIsoDate(Number(year), Number(month), Number(day)) ?? BAD_NUMBER
	},
	{
		name: 'EDATE',
		parameters: [
			{ name: 'start', type: 'date' },
			{ name: 'months', type: 'number' }
		],
		result: 'date',
		doc: 'The date some months later (or earlier); the last day of the month where the day does not exist.',
		examples: [['EDATE(DATE(2024; 3; 31); -1)', '2024-02-29']],
		canFail: true,
		evaluate: (start, months) => (start === null ? null : (addMonths(String(start), Number(months)) ?? BAD_NUMBER))
	},
	{
		name: 'WORKDAY',
		parameters: [
			{ name: 'start', type: 'date' },
			{ name: 'days', type: 'number' }
		],
		result: 'date',
		doc: 'The date some working days later (or earlier). Saturdays and Sundays are no working days.',
		examples: [['WORKDAY(DATE(2024; 1; 5); 1)', '2024-01-08']],
		canFail: true,
		evaluate: (start, days) => (start === null ? null : (addWorkdays(String(start), Number(days)) ?? BAD_NUMBER))
	}
]

/** Adds days to a date; the checker writes `date + number` as this call. */
export const ADD_DAYS: FunctionEntry = {
	name: 'ADD.DAYS',
	parameters: [
		{ name: 'start', type: 'date' },
		{ name: 'days', type: 'number' }
	],
	result: 'date',
	doc: 'The date some days later.',
	examples: [],
	canFail: true,
	evaluate: (start, days) => (start === null ? null : (addDays(String(start), Number(days)) ?? BAD_NUMBER))
}

/** Days from one date to another; the checker writes `date - date` as this call. */
export const DAYS_BETWEEN: FunctionEntry = {
	name: 'DAYS.BETWEEN',
	parameters: [
		{ name: 'end', type: 'date' },
		{ name: 'start', type: 'date' }
	],
	result: 'number',
	doc: 'The number of days from start to end.',
	examples: [],
	canFail: false,
	evaluate: (end, start) =>
		end === null || start === null ? null : toDayNumber(String(end)) - toDayNumber(String(start))
}
