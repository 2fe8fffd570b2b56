/** What lies on a map, as its list and its signs need it. */
import { distance, type Place } from '$lib/core/map/mercator.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { ShownMap } from '$lib/core/requests/shown-rows.ts'
import { showCell } from '$lib/core/requests/show-cell.ts'

export interface Lying {
	readonly row: string
	readonly place: Place
	readonly name: string
	/** What else is shown of it. */
	readonly rest: string
	readonly sign: number | null
	/** By which it is called at; null where it is not, undefined where that is kept back. */
	readonly number: number | null | undefined
	/** Which of the marks. */
	readonly mark: number | undefined
	/** How far it is, once it is known from where. */
	readonly metres?: number
}

export function lyingOn({ points, columns }: Pick<ShownMap, 'points' | 'columns'>): Lying[] {
	return points.map(({ row, at: [latitude, longitude], sign, stop }) => {
		const [name = '', ...rest] = columns.map((column) => showCell(column, row.cells[cellKey(column.id)]))
		return {
			...{ row: row.id, place: { latitude, longitude }, sign, number: stop, mark: row.flags?.[0] },
			...{ name: name || '(blank)', rest: rest.filter(Boolean).map(unbroken).join(' · ') }
		}
	})
}

/** Those of which it is known whether, and when, they are called at. */
export function withTurn(all: readonly Lying[]): (Lying & { readonly number: number | null })[] {
	return all.flatMap((each) => (each.number === undefined ? [] : [{ ...each, number: each.number }]))
}

/** What is as short as a date stays on one line. */
function unbroken(text: string): string {
	return text.length <= 12 ? text.replaceAll(' ', '\u00a0') : text
}

/** The nearest first, with how far each is. */
export function byDistance(lying: readonly Lying[], from: Place): Lying[] {
	return lying
		.map((each) => ({ ...each, metres: distance(from, each.place) }))
		.toSorted((one, other) => one.metres - other.metres)
}
