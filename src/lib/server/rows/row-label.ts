import { getColumn, type Table } from '$lib/core/model/table.ts'
import { cellText } from './written-text.ts'
import type { Store } from '../store/store.ts'

/** What somebody may know a row by; a plain word where they may not see its label. */
export function rowLabel(
	store: Store,
	table: Table,
	{ person, n, now }: { person: number; n: number; now: number }
): string {
	const label = cellText(store, table, { column: getColumn(table, table.label), n, person, now })
	return label === '' ? `a row of ${table.name}` : label
}
