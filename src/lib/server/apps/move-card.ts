/**
 * Cards of a board on their way to another lane, and entries of a calendar to another day: moved, or only tried, so that what would
 * be refused is said before it is.
 */
import { MOST_LANES } from '$lib/core/app/lines/board.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { LineOf } from '$lib/core/app/lines/all.ts'
import { getColumn, getTable, type Column } from '$lib/core/model/table.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { Move, Pressed } from '$lib/core/requests/screen-doings.ts'
import { addDays, isIsoDate, toDayNumber } from '$lib/core/schedule/calendar.ts'
import { instantAt, wallClock } from '$lib/core/schedule/zone.ts'
import { dayOfCell } from '$lib/core/table/day-of-cell.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'
import { findLine, type InApp } from './open-screen.ts'
import { setOn } from './use-app.ts'

type OnCard = InApp & { readonly row: string }

/** `to`: the choice of the lane, blank for the lane of those that are in none; or the day that an entry begins on. */
export function moveCard(store: Store, { row, to, ...place }: OnCard & { to: string }): Pressed {
	const { line } = findLine(store, place, 'board', 'calendar')
	const on = { ...place, table: line.table, row, through: line.kind }
	if (line.kind === 'calendar') return setOn(store, on, () => daysAt(store, line, { ...place, row, to }))
	return setOn(store, on, () => [{ column: line.by, value: to === '' ? null : to }])
}

/** The days of a row that is to begin on another one: it takes as many as before, at the same time of day. */
function daysAt(
	store: Store,
	{ table: number, by, until }: LineOf<'calendar'>,
	{ row, to, actor, now }: OnCard & { to: string }
): CellChange[] {
	if (!isIsoDate(to)) throw new AppError('invalid', 'This is no day that it could be moved to.')
	const table = getTable(store.workspace().catalogue, number)
	const columns = [by, ...(until === null ? [] : [until])]
	const [seen] = readRows(store, actor, { table: number, columns, row, limit: 1 }, now).rows
	// Said as of a row that never was.
	if (!seen) throw new AppError('not_found', 'This row is not there, or not for you to see.')
	const { timeZone } = store.workspace()
	const dayIn = (column: number) => dayOfCell(seen.cells[cellKey(column)], getColumn(table, column), timeZone)
	const from = dayIn(by)
	if (from === undefined)
		throw new AppError('not_found', 'This row stands on no day, or its day is not for you to see.')
	// A blank last day stays blank; one that is kept back could end anywhere.
	if (until !== null && seen.cells[cellKey(until)] === undefined)
		throw new AppError('forbidden', 'You do not see its last day, so it stays where it is.')
	const shift = toDayNumber(to) - toDayNumber(from)
	return columns.flatMap((id): CellChange[] => {
		const column = getColumn(table, id)
		const day = dayIn(id)
		if (day === undefined) return []
		const moved = addDays(day, shift)
		if (moved === undefined) throw new AppError('invalid', 'It would end after the last day that there is.')
		return [{ column: id, value: sameTimeOn(moved, seen.cells[cellKey(id)], { column, timeZone }) }]
	})
}

function sameTimeOn(day: string, before: unknown, { column, timeZone }: { column: Column; timeZone: string }): string {
	if (column.type !== 'date and time') return day
	const wall = wallClock(Date.parse(String(before)), timeZone)
	return instantAt(`${day}T${new Date(wall).toISOString().slice(11, 23)}`, timeZone)
}

/** What the doors, the checks of the table and sign-offs would say to each move. Nothing of it stays. */
export function tryMoves(
	store: Store,
	{ row, to: days = [], ...place }: OnCard & { to?: readonly string[] | undefined }
): Move[] {
	const { line } = findLine(store, place, 'board', 'calendar')
	const column = getColumn(getTable(store.workspace().catalogue, line.table), line.by)
	const targets = line.kind === 'calendar' ? days : (column.choices ?? []).slice(0, MOST_LANES)
	return targets.map((to) => ({ to, refused: tryOut(store, () => moveCard(store, { ...place, row, to })) }))
}

function tryOut(store: Store, work: () => unknown): string | null {
	const touched = [...store.touched]
	store.db.exec('SAVEPOINT trial')
	try {
		work()
		return null
	} catch (thrown) {
		if (thrown instanceof AppError) return thrown.message
		throw thrown
	} finally {
		store.db.exec('ROLLBACK TO trial; RELEASE trial')
		// Nobody is told of what did not happen.
		store.touched.clear()
		for (const each of touched) store.touched.add(each)
	}
}
