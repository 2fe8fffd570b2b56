/** Dates by the formulas that reckon with them, in both lives, clocks by the workspace's zone, and what comes again. */
import { addDays } from '$lib/core/schedule/calendar.ts'
import { occurrences } from '$lib/core/schedule/occurrences.ts'
import { parseRrule } from '$lib/core/schedule/recurrence.ts'
import { instantAt } from '$lib/core/schedule/zone.ts'
import { checkFormulaRow, type FormulaRow } from './formula.ts'
import type { RowResult } from './result.ts'

export interface DateRow {
	readonly id: string
	readonly kind: string
	readonly input:
		| string
		| number
		| {
				readonly start?: string
				readonly end?: string
				readonly date?: string
				readonly days?: number
				readonly months?: number
				readonly holidays?: readonly string[]
				readonly local?: string
				readonly timezone?: string
				readonly dtstart?: string
				readonly rrule?: string
				readonly exdates?: readonly string[]
				readonly take?: number
		  }
	readonly expected: unknown
}

export function checkDateRow(row: DateRow): RowResult {
	const asked = FORMULAS[row.kind]?.(row)
	if (asked) return checkFormulaRow({ id: row.id, ...asked })
	if (row.kind === 'day-vs-24h') return checkDay(row)
	if (row.kind === 'rrule') return checkRecurrence(row)
	return { id: row.id, short: `${row.kind}: nothing here reckons with that` }
}

type Asked = Pick<FormulaRow, 'formula' | 'expected'>

const FORMULAS: Readonly<Record<string, (row: DateRow) => Asked>> = {
	workday: ({ input, expected }) => {
		const { start = '', days = 0, holidays = [] } = partsOf(input)
		return { formula: `WORKDAY(${date(start)}; ${days}${listed(holidays)})`, expected: { date: String(expected) } }
	},
	networkdays: ({ input, expected }) => {
		const { start = '', end = '', holidays = [] } = partsOf(input)
		return { formula: `NETWORKDAYS(${date(start)}; ${date(end)}${listed(holidays)})`, expected: Number(expected) }
	},
	'add-months': ({ input, expected }) => {
		const { date: from = '', months = 0 } = partsOf(input)
		return { formula: `EDATE(${date(from)}; ${months})`, expected: { date: String(expected) } }
	},
	'iso-weeks-in-year': ({ input, expected }) => ({
		// The 28th of December lies in the last week of its year (ISO 8601).
		formula: `ISOWEEKNUM(DATE(${Number(input)}; 12; 28))`,
		expected: Number(expected)
	}),
	'iso-week-date': ({ input, expected }) => {
		const day = date(String(input))
		// A week belongs to the year of its Thursday.
		const year = `YEAR(${day} + 4 - WEEKDAY(${day}; 2))`
		const formula = `${year} & "-W" & TEXT(ISOWEEKNUM(${day}); "00") & "-" & WEEKDAY(${day}; 2)`
		return { formula, expected: String(expected) }
	}
}

function partsOf(input: DateRow['input']): Exclude<DateRow['input'], string | number> {
	if (typeof input !== 'object') throw new Error(`Expected the parts of a date row, got "${input}"`)
	return input
}

function date(iso: string): string {
	return `DATEVALUE("${iso}")`
}

function listed(holidays: readonly string[]): string {
	return holidays.length === 0 ? '' : `; {${holidays.map((day) => `"${day}"`).join('; ')}}`
}

/** A day later by the calendar keeps its hour; 24 hours later need not. */
function checkDay({ id, input, expected }: DateRow): RowResult {
	const { local = '', timezone = 'UTC' } = partsOf(input)
	const [day = '', hour = ''] = local.split('T')
	const seconds = (instant: string) => new Date(instant).toISOString().replace('.000', '')
	const got = {
		plus1day: seconds(instantAt(`${addDays(day, 1)}T${hour}:00.000`, timezone)),
		plus24h: seconds(new Date(Date.parse(instantAt(`${local}:00.000`, timezone)) + 86_400_000).toISOString())
	}
	const short = JSON.stringify(got) === JSON.stringify(expected) ? undefined : `${local} gives ${JSON.stringify(got)}`
	return { id, short }
}

/** The instants at which a rule comes, which the wall clock of the zone shows as they should. */
function checkRecurrence({ id, input, expected }: DateRow): RowResult {
	const { rrule = '', dtstart = '', timezone = 'UTC', take = 0, exdates = [] } = partsOf(input)
	const read = parseRrule(rrule)
	if ('message' in read) return { id, short: read.message }
	const [date = '', time = ''] = dtstart.split('T')
	const [hour = 0, minute = 0] = time.split(':').map(Number)
	const left = new Set(exdates.map((local) => Date.parse(instantAt(`${local}:00.000`, timezone))))
	const got: string[] = []
	for (const at of occurrences(read.rule, { date, minutes: hour * 60 + minute, zone: timezone })) {
		if (got.length === take) break
		if (!left.has(at)) got.push(new Date(at).toISOString().replace('.000', ''))
	}
	// Each row says the instant too, by which the wall clock is known.
	const wanted = (expected as readonly { readonly utc: string }[]).map(({ utc }) => utc)
	const short = JSON.stringify(got) === JSON.stringify(wanted) ? undefined : `${rrule} gives ${got.join(' ')}`
	return { id, short }
}
