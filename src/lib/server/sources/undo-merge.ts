/**
 * Undoes a whole bringing-in into a table that was there, step by step: each row that it added, changed or took out is
 * put back as it was, by the same door, under today's rights. Rows that somebody has changed since are left as they are,
 * and named.
 */
import type { Undone } from '$lib/core/requests/imports.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { Misfit } from '$lib/core/exchange/comparison.ts'
import type { CellChange, CellInput, Change } from '$lib/core/query/change.ts'
import { isErrorValue } from '$lib/core/model/formula.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { isInBin } from '../rows/bin.ts'
import { changeRows } from '../rows/change.ts'
import type { ChangeContext } from '../rows/change-context.ts'
import { writeHistory } from '../history/history.ts'
import { findUndoable } from '../history/last-merge.ts'
import { readStoredRow, toValue } from '../store/stored-row.ts'
import { rowLabel } from '../rows/row-label.ts'
import type { Store } from '../store/store.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import { throughOf } from './apply-merge.ts'
import { refusedOf } from './refused-of.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

/** How far it is: what became of the entries from the last to this one. */
export interface Undoing extends Undone {
	readonly before: number | null
	readonly ended: boolean
}

export const NOTHING_UNDONE: Undoing = { undone: 0, left: [], leftCount: 0, before: null, ended: false }

const MOST_TOLD = 50

/**
 * Backwards, as it is undone. Of this table alone: what went with its rows comes back with them, and of other tables
 * their keepers are told. What others changed between its steps came through something else. By number: sorting all
 * entries of a long table for each step would cost more than the step.
 */
const ENTRIES = `
	SELECT seq, kind, row_n AS n, body FROM history
	WHERE seq >= ? AND seq < ? AND +table_id = ? AND through = ? AND row_n IS NOT NULL
		AND kind IN ('add', 'change', 'remove')
	ORDER BY seq DESC LIMIT ?`

export interface UndoStep {
	readonly table: number
	readonly actor: Actor
	readonly now: number
	readonly soFar: Undoing
	/** As many entries are a step. */
	readonly atMost: number
}

/** Undoes some more rows of a merge, and says how far it is. */
export function undoStep(store: Store, { table: id, actor, now, soFar, atMost }: UndoStep): Undoing {
	const table = getTableAsKeeper(store, id, actor)
	const merge = findUndoable(store, id, now)
	if (!merge) throw new AppError('not_found', `There is nothing that can be undone at ${table.name}.`)
	const context: ChangeContext = { actor, now, through: `undo of file ${merge.file}` }
	const entries = store
		.prepare<Entry>(ENTRIES)
		.all(merge.first, soFar.before ?? merge.seq, id, throughOf(merge.file), atMost)
	const refused = refusedOf(store, entries, (entry) => {
		const change = changeBack(store, table, entry)
		if (change) changeRows(store, [change], context)
	})
	const stays = [...refused].map(([i, { message }]): Misfit => {
		const label = rowLabel(store, table, { n: entries[i]?.n ?? 0, person: actor.person, now })
		return { label, message }
	})
	const left = [...soFar.left, ...stays].slice(0, MOST_TOLD)
	const leftCount = soFar.leftCount + stays.length
	const undone = soFar.undone + entries.length - stays.length
	const ended = entries.length < atMost
	if (ended) {
		const body = { file: merge.file, undone, kept: leftCount }
		const at = { at: now, person: actor.person, through: 'Sources' as const, table: id, row: null }
		writeHistory(store, { ...at, kind: 'bring in undone', body })
	}
	return { undone, left, leftCount, before: entries.at(-1)?.seq ?? soFar.before, ended }
}

interface Entry {
	readonly seq: number
	readonly kind: 'add' | 'change' | 'remove'
	readonly n: number
	readonly body: string
}

type Snapshot = Readonly<Record<string, StoredValue>>

/** The change that undoes an entry; undefined where another's undoing has done so already. */
function changeBack(store: Store, table: Table, { kind, n, body }: Entry): Change | undefined {
	const { before = {}, after = {} } = ownJson<{ before?: Snapshot; after?: Snapshot }>(body)
	const place = { table: table.id, row: store.ids.toId(table.id, n) }
	// What went with a row comes back with it.
	if (kind === 'remove') return isInBin(store, table.id, n) ? { kind: 'restore', ...place } : undefined
	const row = readStoredRow(store, table, n)
	if (!row && kind === 'add') return undefined
	if (!row) throw new AppError('invalid', 'It was removed since.')
	const touched = table.columns.filter((column) => !column.computed && `c${column.id}` in after)
	const now = (column: Column) => row.stored.get(column.id) ?? null
	if (kind === 'change' && touched.every((column) => now(column) === before[`c${column.id}`])) return undefined
	const turned = touched.find((column) => now(column) !== after[`c${column.id}`])
	if (turned) throw new AppError('invalid', `${turned.name} was changed since.`)
	if (kind === 'add') return { kind: 'remove', ...place }
	const cells = touched.map((column): CellChange => {
		const was = before[`c${column.id}`] ?? null
		return { column: column.id, value: toInput(store, column, was) }
	})
	return cells.length === 0 ? undefined : { kind: 'change', ...place, cells }
}

function toInput(store: Store, column: Column, stored: StoredValue): CellInput {
	if (stored === null) return null
	if (column.type === 'reference') return { id: store.ids.toId(column.to ?? 0, Number(stored)) }
	const value = toValue(column, stored)
	return isErrorValue(value) ? null : value
}
