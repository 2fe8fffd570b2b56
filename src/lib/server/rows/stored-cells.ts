/**
 * Turns what came in for a row's cells into what is stored: checked values, keys for comparing, and the computed
 * columns that depend on them.
 */
import { AppError } from '$lib/core/app-error.ts'
import { holdsFile } from '$lib/core/capture/attachment.ts'
import { evaluate } from '$lib/core/formula/evaluate/evaluate.ts'
import { isErrorValue } from '$lib/core/model/formula.ts'
import type { CellChange, CellInput, JoinedCell } from '$lib/core/query/change.ts'
import type { SqlValue } from '$lib/core/sql/sql.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { hasKey, type StoredValue } from '$lib/core/table/storage.ts'
import { getColumn, type Column, type Table } from '$lib/core/model/table.ts'
import { textKey } from '$lib/core/text/key.ts'
import { attachFile, type FileCell } from './uploads.ts'
import { momentAt } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import type { AddedRow, ChangeContext } from './change-context.ts'
import { fillNew } from './fill-new.ts'
import { readRows } from './read.ts'
import { rowFromStored, storeEnv, type StoredRow } from '../store/stored-row.ts'

/** Names of the store's columns and the values they take, in the same order. */
export interface StoredCells {
	readonly names: readonly string[]
	readonly values: readonly SqlValue[]
}

export interface CellTarget {
	readonly table: Table
	/** The row as it was; undefined for a new one. */
	readonly before: StoredRow | undefined
}

export function toStoredCells(
	store: Store,
	{ table, before }: CellTarget,
	cells: readonly (CellChange | JoinedCell)[],
	context: ChangeContext
): StoredCells {
	const stored = new Map<number, StoredValue>(before?.stored ?? [])
	const names: string[] = []
	const values: SqlValue[] = []
	for (const cell of cells) {
		const column = getColumn(table, cell.column)
		const value = isJoined(cell)
			? toAdded(column, context.added?.[cell.value.added])
			: toStoredValue(store, { column, table, n: before?.n }, cell.value, context)
		stored.set(column.id, value)
		addCell(column, value, { names, values })
	}
	if (!before) {
		for (const [column, value] of fillNew(store, table, stored, context)) {
			if (cells.some((cell) => cell.column === column.id)) dropCell(column, { names, values })
			stored.set(column.id, value)
			addCell(column, value, { names, values })
		}
	}
	for (const column of table.columns)
		if (column.computed?.stored) addComputed(store, { column, stored, context }, { names, values })
	return { names, values }
}

/** The value and the key that stand in the store for one plain column. */
export function addCell(column: Column, value: StoredValue, into: { names: string[]; values: SqlValue[] }): void {
	into.names.push(`c${column.id}`)
	into.values.push(value)
	if (!hasKey(column)) return
	into.names.push(`c${column.id}k`)
	into.values.push(typeof value === 'string' ? textKey(value) : null)
}

/** A column that was sent blank gives way to what fills it. */
function dropCell(column: Column, { names, values }: { names: string[]; values: SqlValue[] }): void {
	const at = names.indexOf(`c${column.id}`)
	const count = hasKey(column) ? 2 : 1
	names.splice(at, count)
	values.splice(at, count)
}

interface ComputedCell {
	readonly column: Column
	readonly stored: Map<number, StoredValue>
	readonly context: ChangeContext
}

/** Works a kept column out on the row as it will be. Its error, if it has one, is kept beside it. */
function addComputed(
	store: Store,
	{ column, stored, context }: ComputedCell,
	into: { names: string[]; values: SqlValue[] }
): void {
	if (!column.computed) return
	const row = rowFromStored(0, 0, stored)
	const env = { rows: [row], ...momentAt(store.workspace().timeZone, context.now), ...storeEnv(store) }
	const value = evaluate(column.computed.expr, env)
	const kept = isErrorValue(value) || value === '' ? null : typeof value === 'boolean' ? Number(value) : value
	stored.set(column.id, kept)
	addCell(column, kept, into)
	into.names.push(`c${column.id}e`)
	into.values.push(isErrorValue(value) ? value.errorCode : null)
}

/** The value of one plain cell as it is stored; refused in words where it does not fit its column. */
export function toStoredValue(store: Store, cell: FileCell, input: CellInput, context: ChangeContext): StoredValue {
	const { column } = cell
	if (input === null || (typeof input === 'string' && input.trim() === '')) return null
	if (column.type === 'reference') return toReference(store, column, input, context)
	if (typeof input === 'object') {
		if ('file' in input && holdsFile(column)) return attachFile(store, cell, input.file, context)
		throw new AppError('invalid', `${column.name}: a value of its own was expected here.`, { column: column.id })
	}
	const kind = findKind(column.type)
	if (!kind) throw new AppError('forbidden', 'That column cannot be changed here.', { column: column.id })
	const reading = kind.check(input, column)
	if (!reading.ok) throw new AppError('invalid', `${column.name}: ${reading.message}`, { column: column.id })
	return reading.value === null ? null : kind.toStored(reading.value, column)
}

/** Setting a reference to a row that this person cannot see is answered as if that row did not exist. */
function toReference(store: Store, column: Column, input: NonNullable<CellInput>, context: ChangeContext): StoredValue {
	const target = column.to ?? 0
	if (typeof input === 'object' && 'file' in input)
		throw new AppError('invalid', `${column.name} points to a row; it holds no files.`, { column: column.id })
	const asked = typeof input === 'object' ? input : { match: String(input) }
	const by = 'id' in asked ? { row: asked.id } : { labelIs: asked.match }
	const { rows } = readRows(store, context.actor, { table: target, columns: [], limit: 2, ...by }, context.now)
	const n = rows[0] && store.ids.fromId(target, rows[0].id)
	if (n === undefined || rows.length > 1) {
		const what = 'id' in asked ? 'that row' : `"${asked.match}"`
		const message =
			rows.length > 1 ? `${what} stands there more than once. Choose one from the list.` : `${what} was not found.`
		throw new AppError('invalid', `${column.name}: ${message}`, { column: column.id })
	}
	return n
}

function isJoined(cell: CellChange | JoinedCell): cell is JoinedCell {
	return typeof cell.value === 'object' && cell.value !== null && 'added' in cell.value
}

/** Whoever adds a row may point to it from what goes in with it, also where they do not see it afterwards. */
function toAdded(column: Column, row: AddedRow | null | undefined): number {
	if (!row || row.n === undefined || row.table !== column.to)
		throw new Error(`Expected "${column.name}" to point to a row added before it in the same batch`)
	return row.n
}
