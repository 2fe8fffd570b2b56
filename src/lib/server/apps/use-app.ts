/** What staff do with a row in an app: change it, take it out, press a button on it. Each goes through the one door. */
import { AppError } from '$lib/core/app-error.ts'
import type { Here } from '$lib/core/formula/check/check-call.ts'
import { printName } from '$lib/core/formula/check/rename.ts'
import { columnsOfSheet } from '$lib/core/app/lines/record.ts'
import { momentFor } from '$lib/core/app/lines/put.ts'
import { tallied } from '$lib/core/app/lines/tally.ts'
import { getColumn, getTable } from '$lib/core/model/table.ts'
import type { Pressed } from '$lib/core/requests/screen-doings.ts'
import type { CellChange, Changed } from '$lib/core/query/change.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { changeRows } from '../rows/change.ts'
import { readRows } from '../rows/read.ts'
import { pressButton } from '../routines/press-button.ts'
import { entryOf, setCell, type PressedRow } from '../routines/set-cell.ts'
import type { Store } from '../store/store.ts'
import { countedRow } from './counted-row.ts'
import { findLine, type InApp } from './open-screen.ts'

/** Changes cells of a row in a record sheet: only those that its line shows. */
export function changeRecord(
	store: Store,
	{ row, cells, ...place }: InApp & { row: string; cells: readonly CellChange[] }
): Changed {
	const { line } = findLine(store, place, 'record')
	const shown = cells.filter((cell) => columnsOfSheet(line).includes(cell.column))
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

/** Ticks or clears the box of a row in a list that has one. */
export function tick(store: Store, { row, on, ...place }: InApp & { row: string; on: boolean }): Pressed {
	const { line } = findLine(store, place, 'list')
	if (line.ticks === null)
		throw new AppError('not_found', 'This list has no box to tick any more. Load the page again.')
	const cell = { column: line.ticks, value: on }
	return setOn(store, { ...place, table: line.table, row, through: 'list' }, () => [cell])
}

/**
 * Adds the set amount of a tally to a row, or takes it away: to what stands there now, so that two at once both count. A row
 * that belongs to the one that is shown is made if it is missing.
 */
export function addUp(store: Store, { row, less, ...place }: InApp & { row: string; less: boolean }): Pressed {
	const { line } = findLine(store, place, 'tally')
	if (less && line.less === null) throw new AppError('invalid', 'This tally only adds.')
	const { actor, now } = place
	const counted = countedRow(store, line, { row, actor, now })
	if (!counted) throw new AppError('not_found', 'This row is not there, or not for you to see.')
	if (counted.amount === null)
		throw new AppError('invalid', 'What this adds, or to which row, could not be worked out, so nothing was changed.')
	if (counted.row === undefined)
		return addOn(store, { ...place, table: line.table }, [
			...counted.fresh,
			{ column: line.column, value: less ? -counted.amount : counted.amount }
		])
	const amount = String(counted.amount)
	return setOn(store, { ...place, table: line.table, row: counted.row, through: 'tally' }, (pressed) => {
		const column = getColumn(pressed.table, line.column)
		// To who does not see the number it reads as blank: adding would put the amount in its place.
		const asked = { table: line.table, row: counted.row, columns: [column.id], limit: 1 }
		const [seen] = readRows(store, actor, asked, now).rows
		if (!seen) throw new AppError('not_found', 'This row is not there, or not for you to see.')
		if (seen.cells[cellKey(column.id)] === undefined)
			throw new AppError('forbidden', 'You do not see the number that this adds to, so it stays as it is.')
		return [setCell(store, { column: column.id, formula: tallied(column, amount, less) }, pressed)]
	})
}

/** Puts a value into a column of a row: what the line says, or the moment of the press. */
export function putValue(store: Store, { row, ...place }: InApp & { row: string }): Pressed {
	const { line } = findLine(store, place, 'put')
	return setOn(store, { ...place, table: line.table, row, through: 'button on a row' }, (pressed) => {
		const formula = line.to.trim() === '' ? (momentFor(getColumn(pressed.table, line.column)) ?? '') : line.to
		return [setCell(store, { column: line.column, formula }, pressed)]
	})
}

/** Gives the row a mark; none, where it is null. */
export function rate(store: Store, { row, mark, ...place }: InApp & { row: string; mark: number | null }): Pressed {
	const { line } = findLine(store, place, 'rating')
	if (mark !== null && mark > line.most) throw new AppError('invalid', `Marks here go from 1 to ${line.most}.`)
	const cell = { column: line.column, value: mark }
	return setOn(store, { ...place, table: line.table, row, through: 'rating' }, () => [cell])
}

/** A row that a press makes because it is missing; taken back by who may remove it. */
function addOn(
	store: Store,
	{ table, actor, now }: Omit<SettingOn, 'row' | 'through'>,
	cells: readonly CellChange[]
): Pressed {
	const [added] = changeRows(store, [{ kind: 'add', table, cells }], { actor, now, through: 'tally' })
	const n = added && store.ids.fromId(table, added.row)
	if (!added || n === undefined) throw new Error('Expected the door to answer for the row that a tally adds')
	const asked = { table, columns: [], row: added.row, offers: true }
	const isUndone = readRows(store, actor, asked, now).rows[0]?.may?.remove ?? false
	const pressed = { table: getTable(store.workspace().catalogue, table), n, actor, now }
	return { entry: isUndone ? entryOf(store, pressed) : null }
}

interface SettingOn extends Pick<InApp, 'actor' | 'now'> {
	readonly table: number
	readonly row: string
	readonly through: 'board' | 'calendar' | 'list' | 'tally' | 'button on a row' | 'rating'
}

/** Cells of one row, through the door, with the entry that takes it back. */
export function setOn(
	store: Store,
	{ table: id, row, through, actor, now }: SettingOn,
	cellsFor: (pressed: PressedRow) => readonly CellChange[]
): Pressed {
	const table = getTable(store.workspace().catalogue, id)
	const n = store.ids.fromId(id, row)
	if (n === undefined) throw new AppError('not_found', 'This row is not there, or not for you to see.')
	const pressed = { table, n, actor, now }
	changeRows(store, [{ kind: 'change', table: id, row, cells: cellsFor(pressed) }], { actor, now, through })
	return { entry: entryOf(store, pressed) }
}

/** Runs the routine of a line on the row that has a code, as whoever scanned sees it; what several have is nobody's. */
export function scan(store: Store, { code, ...place }: InApp & { code: string }): Pressed {
	const { line, document, release } = findLine(store, place, 'scan')
	const routine = document.routines.find((each) => each.id === line.routine)
	const { actor, now } = place
	if (routine?.start.kind !== 'scan')
		throw new AppError('not_found', 'What scans here is no longer there. Load the page again.')
	const table = getTable(store.workspace().catalogue, routine.start.table)
	const column = getColumn(table, routine.start.column)
	const where = [`${printName(column.name)} = here.scanned`]
	const here: Here = new Map([['scanned', { type: { kind: 'text' }, value: code }]])
	const [row, other] = readRows(store, actor, { table: table.id, columns: [], where, here, limit: 2 }, now).rows
	if (!row)
		throw new AppError(
			'not_found',
			`${code}: no row of ${table.name} with this ${column.name} is there for you to see.`
		)
	if (other) throw new AppError('conflict', `${code}: several rows of ${table.name} have this ${column.name}. Open the one that you mean.`) // prettier-ignore
	return pressButton(store, { app: place.app, release, routine, row: row.id, actor, now, held: { scanned: code } })
}

/** Runs the routine of a button line, on a row or on none. */
export function press(store: Store, { row, ...place }: InApp & { row: string }): Pressed {
	const { line, document, release } = findLine(store, place, 'button')
	const { does } = line
	const routine = does.kind === 'run' ? document.routines.find((each) => each.id === does.routine) : undefined
	if (!routine || routine.start.kind === 'scan')
		throw new AppError('not_found', 'This button is no longer there. Load the page again.')
	return pressButton(store, { app: place.app, release, routine, row, actor: place.actor, now: place.now })
}
