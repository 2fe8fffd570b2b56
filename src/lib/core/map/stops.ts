/** Places that are called at one after another: their numbers, what a move makes of these, and how far it is from each to the next. */
import { distance, type Place } from './mercator.ts'

export interface Stop {
	readonly row: string
	/** Its number, from 1 as a rule; null where it is not called at. */
	readonly number: number | null
}

/** Before another row, at the end, or out of the order. */
export type StopTo = { readonly before: string } | 'last' | 'out'

/** Those that are called at, in their order; of two with one number the one that stands first. */
export function inOrder<S extends Stop>(stops: readonly S[]): S[] {
	return stops.filter(({ number }) => number !== null).toSorted((a, b) => (a.number ?? 0) - (b.number ?? 0))
}

/**
 * The rows whose number changes when one is moved, numbered from 1 without gaps; undefined where the row that it is put before
 * is not in the order.
 */
export function renumbered(stops: readonly Stop[], row: string, to: StopTo): readonly Stop[] | undefined {
	const before = new Map(stops.map((stop) => [stop.row, stop.number]))
	const others = inOrder(stops).flatMap((stop) => (stop.row === row ? [] : [stop.row]))
	const at = typeof to === 'object' ? others.indexOf(to.before) : others.length
	if (at < 0) return undefined
	const rows = to === 'out' ? others : others.toSpliced(at, 0, row)
	const now = new Map<string, number | null>(rows.map((each, i) => [each, i + 1]))
	if (to === 'out') now.set(row, null)
	return [...now].flatMap(([each, number]) => ((before.get(each) ?? null) === number ? [] : [{ row: each, number }]))
}

/** How far it is to each from the one before, in metres in a straight line; nothing to the first. */
export function legsOf(places: readonly Place[]): readonly number[] {
	return places.map((place, i) => {
		const last = places[i - 1]
		return last ? distance(last, place) : 0
	})
}
