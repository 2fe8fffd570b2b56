/** What staff do in an app: send a form, change a row, press a button. Each goes through the one door. */
import { AppError } from '$lib/core/app-error.ts'
import type { CellChange, Changed } from '$lib/core/query/change.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { changeRows } from '../rows/change.ts'
import { pressButton } from '../routines/run-routine.ts'
import type { Store } from '../store/store.ts'
import { findLine, type AppPlace } from './open-screen.ts'

export interface InApp extends AppPlace {
	readonly screen: string
	readonly line: string
	readonly actor: Actor
	readonly now: number
}

/** Adds the row that a form holds. Only columns that the form asks for are taken; `row`: that of the screen, where it belongs to one. */
export function sendForm(
	store: Store,
	{ cells, row, ...place }: InApp & { cells: readonly CellChange[]; row?: string | undefined }
): Changed {
	const { line } = findLine(store, place, 'form')
	const asked = cells.filter((cell) => cell.column !== line.of && line.columns.includes(cell.column))
	if (line.of !== null && row === undefined)
		throw new AppError('invalid', 'This form belongs to a row. Open it from there.')
	const own = line.of === null || row === undefined ? [] : [{ column: line.of, value: { id: row } }]
	const [changed] = changeRows(store, [{ kind: 'add', table: line.table, cells: [...asked, ...own] }], {
		actor: place.actor,
		now: place.now,
		through: 'form'
	})
	if (!changed) throw new Error('Expected the door to answer for the row of a form')
	return changed
}

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
export function press(store: Store, { row, ...place }: InApp & { row: string }): void {
	const { line, document, release } = findLine(store, place, 'button')
	const { does } = line
	const routine = does.kind === 'run' ? document.routines.find((each) => each.id === does.routine) : undefined
	if (!routine) throw new AppError('not_found', 'This button is no longer there. Load the page again.')
	pressButton(store, { app: place.app, release, routine, row, actor: place.actor, now: place.now })
}
