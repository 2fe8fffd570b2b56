/**
 * Days as a year planner has them: a row for each month, a column for each day of the month, and each day as deep in colour
 * as what was measured on it. Depths are quarters of the days that have any (d3's quantiles), so that one storm does not
 * bleach the rest of the year.
 */
import { scaleQuantile } from 'd3-scale'
import { addDays, addMonths, toDayNumber, weekdayOf } from '../schedule/calendar.ts'
import { periodsBetween } from './periods.ts'

/** From the faintest to the deepest. */
export const DEPTHS = 4

export interface LaidMonth {
	/** `2026-11`. */
	readonly month: string
	/** From the first to the last of them. */
	readonly days: readonly LaidDay[]
}

export interface LaidDay {
	/** As an ISO date. */
	readonly day: string
	readonly value: number
	/** 0 where there is nothing, else 1 to `DEPTHS`. */
	readonly depth: number
	readonly isMonday: boolean
}

export interface LaidDays {
	readonly months: readonly LaidMonth[]
	/** The depths that there are and what each goes up to, the faintest first; fewer than `DEPTHS` where few values differ. */
	readonly depths: readonly { readonly depth: number; readonly upTo: number }[]
}

/** The last months up to that of the last day, `most` of them at the most. */
export function layOutDays(values: ReadonlyMap<string, number>, most: number): LaidDays {
	const measured = [...values].filter(([, value]) => value !== 0)
	if (measured.length === 0) return { months: [], depths: [] }
	const months = periodsBetween(
		measured.map(([day]) => day.slice(0, 7)),
		'months',
		most
	)
	const shown = measured.flatMap(([day, value]) => (day.slice(0, 7) >= (months[0] ?? '') ? [value] : []))
	const upTo = depthsOf(shown)
	return {
		depths: upTo.map((end, i) => ({ depth: depthAt(i, upTo.length), upTo: end })),
		months: months.map((month) => ({
			month,
			days: Array.from({ length: daysIn(month) }, (_each, i): LaidDay => {
				const day = `${month}-${String(i + 1).padStart(2, '0')}`
				const value = values.get(day) ?? 0
				return {
					day,
					value,
					depth: value === 0 ? 0 : depthOf(value, upTo),
					isMonday: weekdayOf(toDayNumber(day)) === 0
				}
			})
		}))
	}
}

function daysIn(month: string): number {
	const last = addDays(addMonths(`${month}-01`, 1) ?? '', -1)
	return Number(last?.slice(8) ?? 31)
}

/** The upper end of each depth, without those that hold no value of their own. */
function depthsOf(values: readonly number[]): readonly number[] {
	const ends = scaleQuantile<number>()
		.domain(values)
		.range(Array.from({ length: DEPTHS }, (_each, i) => i))
		.quantiles()
	return [...new Set([...ends, Math.max(...values)])].filter((end, i, all) =>
		values.some((value) => value <= end && value > (all[i - 1] ?? -Infinity))
	)
}

function depthOf(value: number, upTo: readonly number[]): number {
	return depthAt(
		upTo.findIndex((end) => value <= end),
		upTo.length
	)
}

/** Few depths lie as far apart as they can. */
function depthAt(i: number, count: number): number {
	return Math.round(((i + 1) * DEPTHS) / count)
}
