import { cellKey } from '$lib/core/query/wire.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { getColumn, type Table } from '$lib/core/table/types.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store.ts'

/** What somebody may know a row by; a plain word where they may not see its label. */
export function rowLabel(
	store: Store,
	table: Table,
	{ person, n, now }: { person: number; n: number; now: number }
): string {
	const row = store.ids.toId(table.id, n)
	const page = readRows(store, { person }, { table: table.id, row, columns: [table.label] }, now)
	const cell = page.rows[0]?.cells[cellKey(table.label)]
	if (cell === undefined || cell === null || typeof cell === 'object') return `a row of ${table.name}`
	const label = getColumn(table, table.label)
	return findKind(label.type)?.show(cell, label) ?? String(cell)
}
