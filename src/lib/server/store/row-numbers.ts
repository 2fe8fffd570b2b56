import type { Store } from './store.ts'

const KNOWN = `SELECT coalesce(max(row_n), 0) FROM history WHERE table_id = ?`

/**
 * The number of the next row of a table. The history knows of every row there ever was, so the number of one that was
 * removed is never given again: its id would open another row, under the old one's history.
 */
export function nextRowNumber(store: Store, table: number): number {
	const last = store.prepare(`SELECT coalesce(max(n), 0) FROM t${table}`).pluck().get() as number
	return Math.max(last, store.prepare(KNOWN).pluck().get(table) as number) + 1
}
