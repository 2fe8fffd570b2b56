/** The outline of one part of a chart of areas: along its upper edge, and back along its lower one. */
import type { ShownBar } from '$lib/core/requests/shown-rows.ts'

/** Where a column, by its place, and a height in percent are drawn. */
export interface Drawn {
	readonly x: (column: number) => number
	readonly y: (percent: number) => number
}

export function areaOf(bars: readonly Pick<ShownBar, 'parts'>[], series: number, { x, y }: Drawn): string {
	const points = bars.flatMap(({ parts }, i) => {
		const part = parts.find((each) => each.series === series)
		return part ? [{ at: x(i), top: y(part.to), foot: y(part.from) }] : []
	})
	if (points.length === 0) return ''
	const upper = points.map(({ at, top }) => `${at} ${top}`)
	const lower = points.toReversed().map(({ at, foot }) => `${at} ${foot}`)
	return `M${[...upper, ...lower].join('L')}Z`
}
