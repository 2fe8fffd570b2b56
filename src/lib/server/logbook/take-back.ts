/**
 * Undoes one of somebody's own changes of today. It is a change like any other: through the door, under today's rights, and only
 * where nobody has changed the same since.
 */
import { AppError } from '$lib/core/app-error.ts'
import { fromStoredFile, holdsFile } from '$lib/core/capture/attachment.ts'
import { isErrorValue } from '$lib/core/model/formula.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import type { CellChange, CellInput, Change } from '$lib/core/query/change.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import { momentOf, standingOf, type ByActor } from '../rights/rights-of-actor.ts'
import { changeRows } from '../rows/change.ts'
import { readRows } from '../rows/read.ts'
import { isSeenNow, readBody } from '../rows/read-history.ts'
import type { Store } from '../store/store.ts'
import { readStoredRow, toValue } from '../store/stored-row.ts'
import { dayOf, entriesBackwards, findOwnEntry, takingBack, type OwnEntry } from './own-entries.ts'

export function takeBack(store: Store, { entry: seq, actor, now }: ByActor & { entry: number }): void {
	const { person } = actor
	const entry = findOwnEntry(store, { person, seq })
	const table = entry && store.workspace().catalogue.tables.get(entry.table)
	const isToday = entry !== undefined && dayOf(store, person, entry.at) === momentOf(store, person, now).today
	if (!entry || !table || !isToday || entry.takesBack !== undefined)
		throw new AppError('not_found', 'This is none of what you did today.')
	for (const each of entriesBackwards(store, { person, now }))
		if (each.takesBack === seq) throw new AppError('conflict', 'This was taken back already.')
	changeRows(store, [undoing(store, table, entry, { actor, now })], { actor, now, through: takingBack(seq) })
}

function undoing(store: Store, table: Table, entry: OwnEntry, by: ByActor): Change {
	const row = store.ids.toId(table.id, entry.row)
	if (entry.kind === 'add') return { kind: 'remove', table: table.id, row }
	if (entry.kind === 'remove') return { kind: 'restore', table: table.id, row }
	return { kind: 'change', table: table.id, row, cells: cellsBefore(store, table, entry, by) }
}

function cellsBefore(store: Store, table: Table, entry: OwnEntry, { actor, now }: ByActor): CellChange[] {
	const { row: n, body, through } = entry
	const { rights } = standingOf(store, actor, now)
	const asked = { table: table.id, row: store.ids.toId(table.id, n), columns: [] }
	if (readRows(store, actor, asked, now).rows.length === 0)
		throw new AppError('not_found', 'This row is not there, or not for you to see.')
	const { before = {}, after = {} } = readBody(body)
	const current = readStoredRow(store, table, n)?.stored
	return Object.keys(after).flatMap((key) => {
		const column = findColumn(table, Number(key.slice(1)))
		if (!column || column.computed) return []
		// Whether it was changed since is told only to who may see it.
		if (!isSeenNow(store, table, { column, n, rights }))
			throw new AppError('forbidden', 'You do not see all that you changed here any more, so it stays.')
		const [was, became, is] = [before[key] ?? null, after[key] ?? null, current?.get(column.id) ?? null]
		// What was counted is counted back, whatever others have counted since.
		if (through === 'tally' && typeof is === 'number' && is !== became) {
			const back = is - Number(became) + Number(was)
			return [{ column: column.id, value: toInput(store, column, back) }]
		}
		if (current && is !== became)
			throw new AppError('conflict', `${column.name} has been changed again since. Change it by hand.`)
		return [{ column: column.id, value: toInput(store, column, was) }]
	})
}

/** A stored value as somebody would send it. */
function toInput(store: Store, column: Column, stored: StoredValue): CellInput {
	if (stored === null) return null
	if (column.type === 'reference') return { id: store.ids.toId(column.to ?? 0, Number(stored)) }
	if (holdsFile(column)) return { file: fromStoredFile(String(stored)).sha }
	const value = toValue(column, stored)
	return isErrorValue(value) ? null : value
}
