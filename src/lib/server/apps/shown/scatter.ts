import { layOutDots } from '$lib/core/chart/dots.ts'
import type { LineOf } from '$lib/core/app/lines/all.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import type { ShownDot, ShownScatter } from '$lib/core/requests/shown-rows.ts'
import { readMeasures, type MeasuredGroup, type Measures } from '../../rows/read-measures.ts'
import { rowsBehind } from '../behind.ts'
import { spreadOf, widthOver, withBands } from './bands-of.ts'
import { filtersOf, groupsAlong, type Along, type ToldBy } from '../../rows/groups-along.ts'
import { conditionsOf } from './list.ts'
import { mostCounted } from './most-counted.ts'
import { sayNumber } from '../../rows/say-number.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

type ScatterLine = LineOf<'scatter'>

/** Finer than dots are wide: what lies in one square of these is one dot, at the mean of its rows. */
const [SQUARES_ACROSS, SQUARES_UP] = [48, 30]
const MOST_SERIES = 6

export const scatter: ShownAs<ScatterLine> = {
	holdsSomething: (line, view) => columnsSeen(line, view) !== undefined,
	show(line, view) {
		const seen = columnsSeen(line, view)
		if (!seen) return []
		const { table, across, up } = seen
		const rows = { table: table.id, where: conditionsOf(line, view.here), most: mostCounted(line.id, view) }
		const spreads = spreadOf([across.id, up.id], rows, view)
		const parted = line.parted === null ? [] : withBands([line.parted], rows, view)
		if (spreads === null || parted === null) return []
		const by: readonly ToldBy[] = [
			{ column: across.id, step: { width: widthOver(spreads[0], SQUARES_ACROSS) } },
			{ column: up.id, step: { width: widthOver(spreads[1], SQUARES_UP) } },
			...parted
		]
		const { actor, now } = view.request
		const found = readMeasures(view.store, {
			...{ actor, now, by, most: rows.most, measure: { of: 'count', column: null } },
			request: { table: rows.table, where: rows.where, here: view.here }
		})
		const behind = found && rowsBehind(line, found.leftOut, view)
		if (!found || !behind) return []
		const title = line.title || `${up.name} against ${across.name.toLowerCase()}`
		return [{ id: line.id, kind: 'scatter', title, isPart: found.isPart, ...behind, ...draw(found, by, seen, view) }]
	}
}

interface Seen {
	readonly table: Table
	readonly across: Column
	readonly up: Column
}

/** Undefined where this person sees no row of the table, or nothing of one of the two. */
function columnsSeen({ table: number, across, up }: ScatterLine, view: View): Seen | undefined {
	const table = tableOf(view, number)
	if (!table || across === null || up === null) return undefined
	const found = { table, across: findColumn(table, across), up: findColumn(table, up) }
	const may = (column: Column | undefined) => column && view.standing.rights.mayPossibly('see', table, column)
	return may(found.across) && may(found.up) ? (found as Seen) : undefined
}

function draw(
	found: Measures,
	by: readonly ToldBy[],
	{ table, across, up }: Seen,
	view: View
): Pick<ShownScatter, 'across' | 'up' | 'series' | 'dots' | 'blank' | 'more'> {
	const [byAcross, byUp, byPart] = by
	const [sayAcross, sayUp] = [sayNumber(across, view), sayNumber(up, view)]
	const part = byPart && findColumn(table, byPart.column)
	const series: Along = byPart
		? groupsAlong(found, 2, { table, by: byPart, most: MOST_SERIES, say: sayNumber(part, view) })
		: { shown: [], more: 0 }
	const isPlaced = ({ keys: [x, y] }: MeasuredGroup) => x !== null && y !== null
	const seriesOf = ({ keys }: MeasuredGroup) =>
		byPart ? series.shown.findIndex(({ key }) => key === (keys[2] ?? null)) : 0
	const placed = found.groups.filter((group) => isPlaced(group) && seriesOf(group) >= 0)
	const at = placed.map(({ labels: [x, y], rows }) => ({ across: Number(x), up: Number(y), rows }))
	const laid = layOutDots(at)
	const dots = placed.map((group, i): ShownDot => {
		const { x, y, radius } = laid.dots[i] ?? { x: 0, y: 0, radius: 0 }
		const [a, b, c] = group.keys
		const place = at[i] ?? { across: 0, up: 0 }
		const told = (key: string | null | undefined) => ({ key: key ?? null, label: group.labels[2] ?? '' })
		const what = series.shown[seriesOf(group)]?.label
		return {
			...{ key: group.keys.join(' '), x, y, radius, series: seriesOf(group), rows: group.rows },
			says: `${sayAcross(digits(place.across))}, ${sayUp(digits(place.up))}${what ? `, ${what}` : ''}${group.rows > 1 ? `: ${group.rows} rows` : ''}`,
			filters: [
				...(byAcross ? filtersOf(told(a), byAcross, across) : []),
				...(byUp ? filtersOf(told(b), byUp, up) : []),
				...(byPart ? filtersOf(told(c), byPart, part) : [])
			]
		}
	})
	return {
		across: { label: across.name, ticks: laid.across.map((tick) => ({ at: tick.at, text: sayAcross(tick.value) })) },
		up: { label: up.name, ticks: laid.up.map((tick) => ({ at: tick.at, text: sayUp(tick.value) })) },
		series: series.shown.map(({ label }) => ({ label })),
		dots,
		blank: found.groups.reduce((sum, group) => sum + (isPlaced(group) ? 0 : group.rows), 0),
		more: found.isCut ? null : series.more
	}
}

/** Of a mean as many digits as anybody reads. */
function digits(value: number): number {
	return Number(value.toPrecision(4))
}
