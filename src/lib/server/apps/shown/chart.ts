import { layOut } from '$lib/core/chart/columns.ts'
import { beginsYear, firstDayOf, nameOfPeriod, periodsBetween } from '$lib/core/chart/periods.ts'
import { arrangementOf } from '$lib/core/app/lines/chart.ts'
import type { LineOf } from '$lib/core/app/lines/all.ts'
import { writeHeld } from '$lib/core/app/held-text.ts'
import type { Plain } from '$lib/core/model/formula.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import type { Filter } from '$lib/core/query/filter.ts'
import type { Step } from '$lib/core/query/measure.ts'
import type { ShownBar } from '$lib/core/requests/shown-rows.ts'
import { addDays, addMonths } from '$lib/core/schedule/calendar.ts'
import type { Grouping } from '$lib/core/sentence/slots/measure.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { readMeasures, type MeasuredGroup, type Measures } from '../../rows/read-measures.ts'
import { rowsBehind } from '../behind.ts'
import { seesMeasured } from './figure.ts'
import { sayMeasure } from './say-measure.ts'
import { conditionsOf } from './list.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

type ChartLine = LineOf<'chart'>

/** As many as can be told apart side by side. */
const MOST_BARS = 24
const MOST_PERIODS = 36
const MOST_SERIES = 6

export const chart: ShownAs<ChartLine> = {
	holdsSomething: (line, view) => seesMeasured(line, view),
	show(line, view) {
		const table = tableOf(view, line.table)
		const { by, parted } = line
		if (!table || by === null || !seesMeasured(line, view)) return []
		const { store, request, here } = view
		const { actor, now } = request
		const found = readMeasures(store, {
			...{ actor, now, measure: line.measure, by: parted === null ? [by] : [by, parted] },
			request: { table: table.id, where: conditionsOf(line, here), here }
		})
		const behind = found && rowsBehind(line, found.leftOut, view)
		if (!found || !behind) return []
		const bars = groupsAlong(found, 0, { table, grouping: by, most: by.step === null ? MOST_BARS : MOST_PERIODS })
		const series =
			parted === null ? ONE_SERIES : groupsAlong(found, 1, { table, grouping: parted, most: MOST_SERIES }).shown
		return [{ id: line.id, kind: 'chart', ...behind, ...draw(line, { found, bars, series }, { table, view }) }]
	}
}

interface Group {
	readonly key: string | null
	readonly label: string
}

const ONE_SERIES: readonly Group[] = [{ key: '', label: '' }]

interface Along {
	readonly shown: readonly Group[]
	/** How many more there are. */
	readonly more: number
}

/** The groups along one side, in their order: periods one after the other, choices as they were written, others by size. */
function groupsAlong(
	{ groups, isCut }: Measures,
	side: number,
	{ table, grouping: { column: id, step }, most }: { table: Table; grouping: Grouping; most: number }
): Along {
	const sizes = new Map<string | null, Group & { size: number }>()
	for (const { keys, labels, value, rows } of groups) {
		const key = keys[side] ?? null
		const known = sizes.get(key)
		const size = (known?.size ?? 0) + Math.abs(value ?? rows)
		sizes.set(key, { key, label: labels[side] ?? '', size })
	}
	const all = [...sizes.values()]
	if (step !== null) return periodsAlong(all, step, most)
	const choices = choicesOf(findColumn(table, id))
	const byOrder = choices
		? all.toSorted((a, b) => place(choices, a) - place(choices, b))
		: all.toSorted((a, b) => b.size - a.size || a.label.localeCompare(b.label, 'en'))
	return { shown: byOrder.slice(0, most), more: Math.max(0, all.length - most) + (isCut ? 1 : 0) }
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
	const blank = all.find(({ key }) => key === null)
	return {
		shown: [...names, ...(blank ? [blank] : [])],
		more: keys.filter((key) => key < (periods[0] ?? '')).length
	}
}

interface Read {
	readonly found: Measures
	readonly bars: Along
	readonly series: readonly Group[]
}

function draw(line: ChartLine, { found, bars, series }: Read, { table, view }: { table: Table; view: View }) {
	const say = sayMeasure(line, table, view)
	const at = new Map(found.groups.map((group) => [keyOf(group.keys), group]))
	const isOne = line.parted === null
	const cell = (bar: Group, part: Group): MeasuredGroup | undefined =>
		at.get(keyOf(isOne ? [bar.key] : [bar.key, part.key]))
	const addsUp = line.measure.of === 'count' || line.measure.of === 'sum'
	const values = bars.shown.map((bar) => series.map((part) => cell(bar, part)?.value ?? (addsUp ? 0 : null)))
	const as = arrangementOf(line)
	const laid = layOut(values, as)
	const isShare = as === 'as shares'
	const column = findColumn(table, line.by?.column ?? 0)
	const held = view.here.get(nameKey(line.holds))?.value ?? null
	return {
		title: line.title || titleOf(line, table),
		as,
		ticks: laid.ticks.map(({ at: place, value }) => ({ at: place, text: isShare ? `${value} %` : say(value) })),
		foot: laid.foot,
		series: isOne ? [] : series.map(({ key, label }) => ({ key: key ?? '', label })),
		more: bars.more,
		holds: line.holds,
		isWords: column?.type === 'text' || column?.type === 'code',
		chosen: chosenKey(held, column, view),
		bars: bars.shown.map((bar, i): ShownBar => {
			const own = values[i] ?? []
			const isEmpty = own.every((value) => value === null || value === 0)
			const whole = addsUp ? own.reduce<number>((sum, value) => sum + (value ?? 0), 0) : (own[0] ?? null)
			const parts = series.flatMap(({ label }, s) => {
				const value = own[s] ?? null
				return value === null || (value === 0 && addsUp) ? [] : [`${label === '' ? '' : `${label} `}${say(value)}`]
			})
			return {
				key: pressedKey(bar.key, line.by),
				label: bar.label,
				says: `${bar.label}: ${isEmpty ? 'none' : isOne || !addsUp ? parts.join(', ') : `${say(whole ?? 0)}, ${parts.join(', ')}`}`,
				total: whole === null || isEmpty || (!isOne && !addsUp) || as === 'as lines' ? '' : say(whole),
				top: laid.columns[i]?.top ?? laid.foot,
				parts: (laid.columns[i]?.parts ?? []).map(({ value, ...part }) => ({ ...part, text: say(value) })),
				filters: line.by === null ? [] : filtersOf(bar, line.by, column)
			}
		})
	}
}

function keyOf(keys: readonly (string | null)[]): string {
	return JSON.stringify(keys)
}

/** `Inspections by date and verdict`. */
function titleOf({ measure, by, parted }: ChartLine, table: Table): string {
	const name = (id: number | undefined) => (findColumn(table, id ?? 0)?.name ?? '').toLowerCase()
	const what = measure.of === 'count' ? table.name : `${WORD[measure.of]} ${name(measure.column ?? 0)}`
	return `${what} by ${[by, parted].flatMap((each) => (each ? [name(each.column)] : [])).join(' and ')}`
}

const WORD = { sum: 'Total', mean: 'Mean', least: 'Least', most: 'Most' } as const

/** What stands in the address for a bar: of a period its first day. */
function pressedKey(key: string | null, by: Grouping | null): string {
	if (key === null || by === null) return ''
	return by.step === null ? key : firstDayOf(key, by.step)
}

/** The key of the bar that is set by what the screen holds. */
function chosenKey(held: Plain, column: Column | undefined, { store }: View): string {
	if (column?.type === 'reference' && typeof held === 'number') return store.ids.toId(column.to ?? 0, held)
	return writeHeld(held)
}

/** The rows of one bar, as filters on the column that it goes by. */
function filtersOf({ key, label }: Group, { column: id, step }: Grouping, column: Column | undefined): Filter[] {
	if (key === null) return [{ column: id, is: 'blank', text: '' }]
	if (step === null) return [{ column: id, is: 'equal', text: column?.type === 'reference' ? label : key }]
	const first = firstDayOf(key, step)
	const last = addDays(firstOfNext(first, step), -1) ?? first
	const [from, to] = column?.type === 'date and time' ? [`${first} 00:00`, `${last} 23:59:59`] : [first, last]
	return [
		{ column: id, is: 'at least', text: from },
		{ column: id, is: 'at most', text: to }
	]
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
