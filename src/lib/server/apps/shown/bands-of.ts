/** How wide the bands of a chart are: as its builder says, or as suits what its reader sees. */
import { stepWidth } from '$lib/core/query/bands.ts'
import { isBands, type Grouping } from '$lib/core/sentence/slots/measure.ts'
import { readSpread, type Spread } from '../../rows/read-measures.ts'
import type { ToldBy } from '../../rows/groups-along.ts'
import type { View } from './view.ts'

/** How many bands are wanted, where nobody says how wide they are. */
const ABOUT = 12

export interface CountedRows {
	readonly table: number
	readonly where: readonly string[]
	/** All, where it is undefined. */
	readonly most: number | undefined
}

/** Null where the reader sees nothing of a column. */
export function withBands(groupings: readonly Grouping[], rows: CountedRows, view: View): readonly ToldBy[] | null {
	const open = groupings.flatMap(({ column, step }) => (step === 'bands' ? [column] : []))
	const spreads = open.length === 0 ? [] : spreadOf(open, rows, view)
	if (spreads === null) return null
	return groupings.map(({ column, step }): ToldBy => {
		if (!isBands(step)) return { column, step }
		const spread = spreads[open.indexOf(column)]
		return { column, step: { width: step === 'bands' ? widthOver(spread, ABOUT) : step } }
	})
}

export function spreadOf(
	columns: readonly number[],
	{ table, where, most }: CountedRows,
	{ store, request, here }: View
): readonly (Spread | null)[] | null {
	const { actor, now } = request
	return readSpread(store, { actor, now, columns, most, request: { table, where, here } })
}

export function widthOver(spread: Spread | null | undefined, about: number): number {
	return spread ? stepWidth(spread.least, spread.most, about) : 1
}
