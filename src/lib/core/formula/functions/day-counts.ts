/** Spans between dates by the conventions of trade and money. OpenFormula 6.10 and 4.11.7 (clauses from memory). */
import { addMonths, toDayNumber } from '../../schedule/calendar.ts'
import { BAD_NUMBER, type FunctionEntry, type Value } from '../../model/formula.ts'
import { family } from './define.ts'

const dates = family('dates')

const SPAN = [
	{ name: 'from', type: 'date' },
	{ name: 'to', type: 'date' }
] as const

export const DAY_COUNT_FUNCTIONS: readonly FunctionEntry[] = [
	dates({
		name: 'DATEDIF',
		parameters: [...SPAN, { name: 'unit', type: 'text' }],
		result: 'number',
		doc: 'Whole years ("y"), months ("m") or days ("d") between two dates; "ym" months past the years, "md" days past the months, "yd" days past the years.',
		examples: [['DATEDIF(DATE(2023; 11; 15); DATE(2024; 2; 10); "m")', '2']],
		canFail: true,
		evaluate: difference
	}),
	dates({
		name: 'DAYS360',
		parameters: [...SPAN, { name: 'european', type: 'yesno', otherwise: false }],
		result: 'number',
		doc: 'Days between two dates in a year of twelve months of 30 days.',
		examples: [['DAYS360(DATE(2024; 1; 1); DATE(2024; 7; 1))', '180']],
		canFail: false,
		evaluate: (from, to, european) => days360(from, to, european)
	}),
	dates({
		name: 'YEARFRAC',
		parameters: [...SPAN, { name: 'basis', type: 'number', otherwise: 0 }],
		result: 'number',
		doc: 'The part of a year between two dates. Basis 0: months of 30 days (US), 1: as the calendar is, 2: days by 360, 3: days by 365, 4: months of 30 days (Europe).',
		examples: [['YEARFRAC(DATE(2024; 1; 1); DATE(2024; 7; 1))', '0.5']],
		canFail: true,
		evaluate: (one, other, basis) => {
			const [from, to] = one <= other ? [one, other] : [other, one]
			return yearFraction(from, to, Math.trunc(basis))
		}
	})
]

interface Parts {
	readonly year: number
	readonly month: number
	readonly day: number
}

function partsOf(date: string): Parts {
	const [year = 0, month = 0, day = 0] = date.split('-').map(Number)
	return { year, month, day }
}

function difference(from: string, to: string, unit: string): Value {
	if (from > to) return BAD_NUMBER
	const months = wholeMonths(from, to)
	switch (unit.toLowerCase()) {
		case 'y':
			return Math.floor(months / 12)
		case 'm':
			return months
		case 'd':
			return toDayNumber(to) - toDayNumber(from)
		case 'ym':
			return months % 12
		case 'yd':
			return daysSince(from, Math.floor(months / 12) * 12, to)
		case 'md':
			return daysSince(from, months, to)
		default:
			return BAD_NUMBER
	}
}

function wholeMonths(from: string, to: string): number {
	const [a, b] = [partsOf(from), partsOf(to)]
	return (b.year - a.year) * 12 + b.month - a.month - (b.day < a.day ? 1 : 0)
}

function daysSince(from: string, months: number, to: string): number {
	return toDayNumber(to) - toDayNumber(addMonths(from, months) ?? from)
}

/** The US method of the National Association of Securities Dealers, or the European one (common practice). */
function days360(from: string, to: string, european: boolean): number {
	const [a, b] = [partsOf(from), partsOf(to)]
	const months = (b.year - a.year) * 360 + (b.month - a.month) * 30
	if (european) return months + Math.min(b.day, 30) - Math.min(a.day, 30)
	const first = isLastOfMonth(from) ? 30 : a.day
	const last = b.day === 31 && first === 30 ? 30 : b.day
	return months + last - first
}

function isLastOfMonth(date: string): boolean {
	const { day } = partsOf(date)
	return day >= 28 && day === daysInMonth(partsOf(date))
}

function daysInMonth({ year, month }: Parts): number {
	return new Date(Date.UTC(2000 + (year % 400), month, 0)).getUTCDate()
}

function yearFraction(from: string, to: string, basis: number): Value {
	const days = toDayNumber(to) - toDayNumber(from)
	switch (basis) {
		case 0:
			return days360Securities(from, to) / 360
		case 1:
			return days === 0 ? 0 : days / averageYear(from, to)
		case 2:
			return days / 360
		case 3:
			return days / 365
		case 4:
			return days360(from, to, true) / 360
		default:
			return BAD_NUMBER
	}
}

/** As `days360`, but the last of February counts as the 30th on both sides (SIA 30/360, common practice). */
function days360Securities(from: string, to: string): number {
	const [a, b] = [partsOf(from), partsOf(to)]
	const februaries = a.month === 2 && b.month === 2 && isLastOfMonth(from) && isLastOfMonth(to)
	const first = a.day === 31 || (a.month === 2 && isLastOfMonth(from)) ? 30 : a.day
	const last = februaries || (b.day === 31 && first === 30) ? 30 : b.day
	return (b.year - a.year) * 360 + (b.month - a.month) * 30 + last - first
}

/** The mean length of the years a span touches; a span within one year takes 366 days where it passes a leap day. */
function averageYear(from: string, to: string): number {
	const [a, b] = [partsOf(from), partsOf(to)]
	if (to <= (addMonths(from, 12) ?? to)) {
		if (a.year === b.year) return isLeap(a.year) ? 366 : 365
		return passesLeapDay(from, to, a.year) || passesLeapDay(from, to, b.year) ? 366 : 365
	}
	let days = 0
	for (let year = a.year; year <= b.year; year++) days += isLeap(year) ? 366 : 365
	return days / (b.year - a.year + 1)
}

function passesLeapDay(from: string, to: string, year: number): boolean {
	const leapDay = `${String(year).padStart(4, '0')}-02-29`
	return isLeap(year) && from <= leapDay && leapDay <= to
}

function isLeap(year: number): boolean {
	return (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0
}
