/** What staff do with a row in an app: change it, take it out, press a button on it. Each goes through the one door. */
import { AppError } from '$lib/core/app-error.ts'
import type { Pressed } from '$lib/core/requests/screens.ts'
import type { CellChange, Changed } from '$lib/core/query/change.ts'
import { changeRows } from '../rows/change.ts'
import { pressButton } from '../routines/run-routine.ts'
import type { Store } from '../store/store.ts'
import { findLine, type InApp } from './open-screen.ts'

/** Changes cells of a row in a record sheet: only those that its line shows. */
export function changeRecord(
	store: Store,
	{ row, cells, ...place }: InApp & { row: string; cells: readonly CellChange[] }
): Changed {
	const { line } = findLine(store, place, 'record')
	const shown = cells.filter((cell) => line.columns.includes(cell.column))
	const change = { kind: 'change' as const, table: line.table, row, cells: shown }
	const [changed] = changeRows(store, [change], { actor: place.actor, now: place.now, through: 'record sheet' })
	if (!changed) throw new Error('Expected the door to answer for the row of a record sheet')
	return changed
}

/** Takes a row out, in a record sheet whose line is still there. */
export function removeRecord(store: Store, { row, ...place }: InApp & { row: string }): void {
	const { line } = findLine(store, place, 'record')
	changeRows(store, [{ kind: 'remove', table: line.table, row }], {
		actor: place.actor,
		now: place.now,
		through: 'record sheet'
	})
}

/** Runs the routine of a button line, on a row or on none. */
export function press(store: Store, { row, ...place }: InApp & { row: string }): Pressed {
	const { line, document, release } = findLine(store, place, 'button')
	const { does } = line
	const routine = does.kind === 'run' ? document.routines.find((each) => each.id === does.routine) : undefined
	if (!routine) throw new AppError('not_found', 'This button is no longer there. Load the page again.')
	return pressButton(store, { app: place.app, release, routine, row, actor: place.actor, now: place.now })
}
