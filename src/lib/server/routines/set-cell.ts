/** Sets a column of a row to a formula, as whoever pressed may see the row. */
import { AppError } from '$lib/core/app-error.ts'
import type { Scope } from '$lib/core/formula/check/check-call.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { isErrorValue } from '$lib/core/model/formula.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import { standingOf, type Actor } from '../rights/rights-of-actor.ts'
import { visitedApp } from '../rights/roles-held.ts'
import type { Store } from '../store/store.ts'
import { sightOf, workOut, type OnRow } from './work-out.ts'

export interface PressedRow {
	readonly table: Table
	readonly n: number
	readonly actor: Actor
	/** Epoch ms. */
	readonly now: number
}

export interface Setting {
	readonly column: number
	readonly formula: string
}

const LAST_OF_ROW = `SELECT max(seq) FROM history WHERE table_id = ? AND row_n = ?`

/** The change that a press makes; the formula stands over the row, as it is at this moment. */
export function setCell(store: Store, set: Setting, { table, n, actor, now }: PressedRow): CellChange {
	const scope = { catalogue: store.workspace().catalogue, rows: [table], me: true }
	return cellFor(store, set, { table, scope, on: { table, n, ...sightOf(standingOf(store, actor, now)) } })
}

export interface Filling {
	/** The table of the column. */
	readonly table: Table
	/** What the formula is read in, and the row that it stands on. */
	readonly scope: Scope
	readonly on: OnRow
}

/** A column filled with what a formula comes to. */
export function cellFor(store: Store, { column: id, formula }: Setting, { table, scope, on }: Filling): CellChange {
	const column = findColumn(table, id)
	if (!column) throw new AppError('invalid', `A column that it sets is no longer in ${table.name}.`)
	const { expr, issues } = check(formula, scope)
	if (!expr) throw new AppError('invalid', `This cannot run: ${issues[0]?.message ?? 'its formula is damaged.'}`)
	const value = workOut(store, expr, on)
	if (isErrorValue(value))
		throw new AppError('invalid', `${column.name} could not be worked out, so nothing was changed.`)
	if (column.type !== 'reference') return { column: id, value }
	return { column: id, value: typeof value === 'number' ? { id: store.ids.toId(column.to ?? 0, value) } : null }
}

/** The entry by which the last change of a row can be taken back; null for visitors, who share one row of People. */
export function entryOf(store: Store, { table, n, actor }: PressedRow): number | null {
	if (visitedApp(store, actor.person) !== undefined) return null
	return store.pluck<number>(LAST_OF_ROW, table.id, n) ?? null
}
