import { layOut, type OverScale } from '$lib/core/chart/columns.ts'
import { arrangementOf } from '$lib/core/app/lines/chart.ts'
import type { LineOf } from '$lib/core/app/lines/all.ts'
import { writeHeld } from '$lib/core/app/held-text.ts'
import type { Plain } from '$lib/core/model/formula.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import type { ShownBar } from '$lib/core/requests/shown-rows.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { readMeasures, type MeasuredGroup, type Measures } from '../../rows/read-measures.ts'
import { rowsBehind } from '../behind.ts'
import { seesMeasured } from './figure.ts'
import { mostCounted } from './most-counted.ts'
import { withBands } from './bands-of.ts'
import { drawDays } from './days.ts'
import { filtersOf, groupsAlong, pressedKey, type Along, type Group, type ToldBy } from '../../rows/groups-along.ts'
import { sayMeasure } from './say-measure.ts'
import { sayNumber } from '../../rows/say-number.ts'
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
		if (!table || line.by === null || !seesMeasured(line, view)) return []
		const { store, request, here } = view
		const { actor, now } = request
		const where = conditionsOf(line, here)
		const most = mostCounted(line.id, view)
		const told = withBands(
			line.parted === null ? [line.by] : [line.by, line.parted],
			{ table: table.id, where, most },
			view
		)
		const [by, parted] = told ?? []
		if (!told || !by) return []
		const found = readMeasures(store, {
			...{ actor, now, measure: line.measure, by: told, most },
			request: { table: table.id, where, here }
		})
		const behind = found && rowsBehind(line, found.leftOut, view)
		if (!found || !behind) return []
		const head = {
			id: line.id,
			title: line.title || titleOf(line, table),
			holds: line.holds,
			isPart: found.isPart,
			...behind
		}
		const as = arrangementOf(line)
		if (as === 'as a calendar') return [{ kind: 'days', ...head, ...drawDays(line, by, found, { table, view }) }]
		const sideOf = (told: ToldBy, most: number) => ({
			...{ table, by: told, most, say: sayNumber(findColumn(table, told.column), view) }
		})
		const bars = groupsAlong(found, 0, sideOf(by, by.step === null ? MOST_BARS : MOST_PERIODS))
		const series = parted ? groupsAlong(found, 1, sideOf(parted, MOST_SERIES)).shown : ONE_SERIES
		return [{ kind: 'chart', ...head, as, ...draw(line, { found, as, by, parted, bars, series }, { table, view }) }]
	}
}

const ONE_SERIES: readonly Group[] = [{ key: '', label: '' }]

interface Read {
	readonly found: Measures
	readonly as: OverScale
	readonly by: ToldBy
	readonly parted: ToldBy | undefined
	readonly bars: Along
	readonly series: readonly Group[]
}

function draw(
	line: ChartLine,
	{ found, as, by, parted, bars, series }: Read,
	{ table, view }: { table: Table; view: View }
) {
	const say = sayMeasure(line, table, view)
	const at = new Map(found.groups.map((group) => [keyOf(group.keys), group]))
	const isOne = line.parted === null
	const cell = (bar: Group, part: Group): MeasuredGroup | undefined =>
		at.get(keyOf(isOne ? [bar.key] : [bar.key, part.key]))
	const addsUp = line.measure.of === 'count' || line.measure.of === 'sum'
	const values = bars.shown.map((bar) => series.map((part) => cell(bar, part)?.value ?? (addsUp ? 0 : null)))
	const laid = layOut(values, as)
	const isShare = as === 'as shares'
	const column = findColumn(table, by.column)
	const held = view.here.get(nameKey(line.holds))?.value ?? null
	return {
		ticks: laid.ticks.map(({ at: place, value }) => ({ at: place, text: isShare ? `${value} %` : say(value) })),
		foot: laid.foot,
		series: isOne ? [] : series.map(({ key, label }) => ({ key: key ?? '', label })),
		more: bars.more,
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
				key: pressedKey(bar.key, by),
				label: bar.label,
				says: `${bar.label}: ${isEmpty ? 'none' : isOne || !addsUp ? parts.join(', ') : `${say(whole ?? 0)}, ${parts.join(', ')}`}`,
				total:
					whole === null || isEmpty || (!isOne && !addsUp) || as === 'as lines' || as === 'as areas' ? '' : say(whole),
				top: laid.columns[i]?.top ?? laid.foot,
				parts: (laid.columns[i]?.parts ?? []).map(({ value, ...part }) => ({ ...part, text: say(value) })),
				filters: [
					...filtersOf(bar, by, column),
					...(parted ? [{ column: parted.column, is: 'seen' as const, text: '' }] : [])
				]
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

/** The key of the bar that is set by what the screen holds. */
function chosenKey(held: Plain, column: Column | undefined, { store }: View): string {
	if (column?.type === 'reference' && typeof held === 'number') return store.ids.toId(column.to ?? 0, held)
	return writeHeld(held)
}
