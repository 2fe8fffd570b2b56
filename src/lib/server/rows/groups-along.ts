/** The groups along one side of a chart: in which order they stand, what they are called, and how their rows are found again. */
import { bandsBetween, startOfBand } from '$lib/core/query/bands.ts'
import { beginsYear, firstDayOf, nameOfPeriod, periodsBetween } from '$lib/core/chart/periods.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import type { Filter } from '$lib/core/query/filter.ts'
import { isBand, type Band, type Step } from '$lib/core/query/measure.ts'
import { addDays, addMonths } from '$lib/core/schedule/calendar.ts'
import type { Measures } from './read-measures.ts'
import type { SayNumber } from './say-number.ts'

/** By what rows are told apart, every band with its width. */
export interface ToldBy {
	readonly column: number
	readonly step: Step | Band | null
}

export interface Group {
	readonly key: string | null
	readonly label: string
}

export interface Along {
	readonly shown: readonly Group[]
	/** How many more there are; null where they are too many to be counted. */
	readonly more: number | null
}

export interface Side {
	readonly table: Table
	readonly by: ToldBy
	/** How many are shown at the most. */
	readonly most: number
	/** How its numbers are read, where it goes by numbers. */
	readonly say: SayNumber
}

/** Periods and bands one after the other, choices as they were written, others by size. */
export function groupsAlong({ groups, isCut }: Measures, side: number, { table, by, most, say }: Side): Along {
	const sizes = new Map<string | null, Group & { size: number }>()
	for (const { keys, labels, value, rows } of groups) {
		const key = keys[side] ?? null
		const known = sizes.get(key)
		const size = (known?.size ?? 0) + Math.abs(value ?? rows)
		sizes.set(key, { key, label: labels[side] ?? '', size })
	}
	const all = [...sizes.values()]
	if (by.step !== null) {
		const along = isBand(by.step) ? bandsAlong(all, by.step, { most, say }) : periodsAlong(all, by.step, most)
		return isCut ? { ...along, more: null } : along
	}
	const choices = choicesOf(findColumn(table, by.column))
	const byOrder = choices
		? all.toSorted((a, b) => place(choices, a) - place(choices, b))
		: all.toSorted((a, b) => b.size - a.size || a.label.localeCompare(b.label, 'en'))
	return { shown: byOrder.slice(0, most), more: isCut ? null : Math.max(0, all.length - most) }
}

/** What stands in the address for a group: of a period its first day, of a band its start. */
export function pressedKey(key: string | null, { step }: ToldBy): string {
	if (key === null) return ''
	if (isBand(step)) return String(startOfBand(Number(key), step.width))
	return step === null ? key : firstDayOf(key, step)
}

/** The rows of one group, as filters on the column that it goes by. */
export function filtersOf({ key, label }: Group, { column: id, step }: ToldBy, column: Column | undefined): Filter[] {
	// What is kept back reads as blank, and is in no group.
	if (key === null)
		return [
			{ column: id, is: 'blank', text: '' },
			{ column: id, is: 'seen', text: '' }
		]
	if (step === null) return [{ column: id, is: 'equal', text: column?.type === 'reference' ? label : key }]
	if (isBand(step)) {
		const text = (band: number) => asTyped(startOfBand(band, step.width), column)
		return [
			{ column: id, is: 'at least', text: text(Number(key)) },
			{ column: id, is: 'below', text: text(Number(key) + 1) }
		]
	}
	const first = firstDayOf(key, step)
	const last = addDays(firstOfNext(first, step), -1) ?? first
	const [from, to] = column?.type === 'date and time' ? [`${first} 00:00`, `${last} 23:59:59`] : [first, last]
	return [
		{ column: id, is: 'at least', text: from },
		{ column: id, is: 'at most', text: to }
	]
}

/** Filters travel as what somebody could have typed, in plain figures. */
function asTyped(value: number, column: Column | undefined): string {
	return column?.type === 'percent' ? `${Number((value * 100).toPrecision(15))} %` : String(value)
}

function choicesOf(column: Column | undefined): readonly string[] | undefined {
	return column?.type === 'yes/no' ? ['yes', 'no'] : column?.choices
}

/** Whatever is no choice any more, or blank, comes last. */
function place(choices: readonly string[], { key }: Group): number {
	const at = choices.indexOf(key ?? '')
	return at < 0 ? choices.length + (key === null ? 1 : 0) : at
}

function periodsAlong(all: readonly Group[], step: Step, most: number): Along {
	const keys = all.flatMap(({ key }) => key ?? [])
	const periods = periodsBetween(keys, step, most)
	const names = periods.map((key, i) => ({
		key,
		label: nameOfPeriod(key, step, beginsYear(key, periods[i - 1]))
	}))
	return { shown: [...names, ...blankOf(all)], more: keys.filter((key) => key < (periods[0] ?? '')).length }
}

function bandsAlong(all: readonly Group[], { width }: Band, { most, say }: Pick<Side, 'most' | 'say'>): Along {
	const numbers = all.flatMap(({ key }) => (key === null ? [] : [Number(key)]))
	const bands = bandsBetween(numbers, most)
	const at = (band: number) => startOfBand(band, width)
	const named = bands.map((band) => ({
		key: String(band),
		label: `${say.bare(at(band))}–${say(at(band + 1))}`
	}))
	return { shown: [...named, ...blankOf(all)], more: numbers.filter((band) => band > (bands.at(-1) ?? band)).length }
}

function blankOf(all: readonly Group[]): readonly Group[] {
	return all.filter(({ key }) => key === null)
}

function firstOfNext(first: string, step: Step): string {
	const next = {
		days: () => addDays(first, 1),
		weeks: () => addDays(first, 7),
		months: () => addMonths(first, 1),
		quarters: () => addMonths(first, 3),
		years: () => addMonths(first, 12)
	}[step]()
	return next ?? first
}
