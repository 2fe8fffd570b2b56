/** Rows that were read, as they travel: no cell that its reader does not see, references by the label that they do. */
import { covers } from '$lib/core/access/types.ts'
import { fromStoredFile, holdsFile } from '$lib/core/capture/attachment.ts'
import { ERROR_NAMES } from '$lib/core/model/formula.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import type { PagePlan } from '$lib/core/query/plan.ts'
import type { CellPlace, OfferPlaces } from '$lib/core/query/select-list.ts'
import { cellKey, type WireCell, type WireRow } from '$lib/core/query/wire.ts'
import { showValue } from '$lib/core/table/show-value.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import type { Store } from '../store/store.ts'
import { toValue } from '../store/stored-row.ts'

interface WirePlace {
	readonly store: Store
	readonly table: Table
}

/** `row`: as the statement of the plan gives it. */
export function toWire(row: unknown[], plan: PagePlan, place: WirePlace): WireRow {
	const cells: Record<string, WireCell> = {}
	for (const cell of plan.cells) {
		if (cell.seenAt !== undefined && row[cell.seenAt] !== 1) continue
		cells[cellKey(cell.column.id)] = toCell(row, cell, place.store)
	}
	const wire = { id: place.store.ids.toId(place.table.id, Number(row[0])), rev: Number(row[1]), cells }
	const flags = plan.flagsAt.flatMap((at, i) => (row[at] === 1 ? [i] : []))
	const flagged = plan.flagsAt.length > 0 ? { ...wire, flags } : wire
	return plan.offers ? { ...flagged, may: toOffers(row, plan.offers, place.table) } : flagged
}

function toCell(row: unknown[], cell: CellPlace, store: Store): WireCell {
	const { column } = cell
	const error = cell.errorAt === undefined ? null : row[cell.errorAt]
	if (typeof error === 'number') return { error: ERROR_NAMES[error] ?? '#VALUE!' }
	// Statements over rows give stored values.
	const stored = row[cell.at] as StoredValue
	if (stored === null) return null
	if (cell.label) return toReference(row, cell.label, Number(stored), { store, to: column.to ?? 0 })
	if (holdsFile(column)) return { file: fromStoredFile(String(stored)) }
	const value = toValue(column, stored)
	return typeof value === 'object' ? null : value
}

function toReference(
	row: unknown[],
	label: NonNullable<CellPlace['label']>,
	n: number,
	{ store, to }: { store: Store; to: number }
): WireCell {
	if (label.seenAt !== undefined && row[label.seenAt] !== 1) return { hidden: true }
	// Statements over rows give stored values.
	return { id: store.ids.toId(to, n), label: labelText(label.column, row[label.at] as StoredValue) }
}

/** A stored value as a row is known by it; empty for a blank. */
export function labelText(column: Column, stored: StoredValue): string {
	if (stored === null) return ''
	const value = toValue(column, stored)
	if (value === null || typeof value === 'object') return ''
	// What rows are known by is a name, though it be a number: its digits stand together.
	if (column.type === 'whole number') return String(value)
	return showValue(value, column)
}

function toOffers(row: unknown[], offers: OfferPlaces, table: Table): NonNullable<WireRow['may']> {
	const held = offers.change.filter(({ at }) => row[at] === 1).map(({ right }) => right.columns)
	const change = table.columns.filter((column) => !column.computed && held.some((scope) => covers(scope, column.id)))
	const remove = offers.removeAt !== undefined && row[offers.removeAt] === 1
	return { change: change.map((column) => column.id), remove }
}
