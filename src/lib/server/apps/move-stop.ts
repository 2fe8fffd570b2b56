/** Places of a map on their way to another turn: the rows that are called at are numbered anew, all of them or none. */
import { AppError } from '$lib/core/app-error.ts'
import { inOrder, renumbered, type StopTo } from '$lib/core/map/stops.ts'
import type { Pressed } from '$lib/core/requests/screen-doings.ts'
import { changeRows } from '../rows/change.ts'
import type { Store } from '../store/store.ts'
import { heldOnScreen, type Chooser } from './held-on-screen.ts'
import { findLine, type InApp } from './open-screen.ts'
import { stopsOf } from './shown/stops.ts'

/** As many as anybody puts in order by hand. */
const MOST_STOPS = 500

export function moveStop(
	store: Store,
	{ row, to, held, ...place }: InApp & Pick<Chooser, 'held'> & { row: string; to: StopTo }
): Pressed {
	const { line, screen } = findLine(store, place, 'map')
	if (line.order === null)
		throw new AppError('not_found', 'The places of this map have no order any more. Load the page again.')
	const { actor, now } = place
	const here = heldOnScreen(store, screen, { actor, now, held })
	const stops = stopsOf(store, line, { actor, now, here })
	if (!stops.some((stop) => stop.row === row))
		throw new AppError('not_found', 'This row is not there, or its turn is not for you to see.')
	if (inOrder(stops).length > MOST_STOPS)
		throw new AppError('invalid', `More than ${MOST_STOPS} places are put in order in their table.`)
	const changed = renumbered(stops, row, to)
	if (!changed) throw new AppError('conflict', 'Somebody changed the order meanwhile. Look again, and move it anew.')
	const column = line.order
	const changes = changed.map((stop) => ({
		...{ kind: 'change' as const, table: line.table, row: stop.row },
		cells: [{ column, value: stop.number }]
	}))
	if (changes.length > 0) changeRows(store, changes, { actor, now, through: 'map' })
	return { entry: null }
}
