import type { Store } from './store.ts'

const KNOWN = `SELECT coalesce(max(row_n), 0) FROM history WHERE table_id = ?`

/**
 * The number of the next row of a table. The history knows of every row there ever was, so the number of one that was
 * removed is never given again: its id would open another row, under the old one's history.
 */
export function nextRowNumber(store: Store, table: number): number {
	const last = Number(store.pluck(`SELECT coalesce(max(n), 0) FROM t${table}`))
	return Math.max(last, Number(store.pluck(KNOWN, table))) + 1
}
