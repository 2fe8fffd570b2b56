import type { Store } from '../store/store.ts'

/** Removed rows lie in the bin for as long. */
const UNDOABLE_MS = 30 * 86_400_000

const LAST = `
	SELECT seq, at, kind, body ->> 'file' AS file, body ->> 'first' AS first FROM history
	WHERE table_id = ? AND row_n IS NULL AND kind IN ('bring in begun', 'bring in again', 'bring in undone')
	ORDER BY seq DESC LIMIT 1`

export interface LastMerge {
	readonly seq: number
	readonly at: number
	readonly file: string
	/** The number of the first entry that it wrote. */
	readonly first: number
}

/** The last bringing-in into a table, if it can still be undone. */
export function findUndoable(store: Store, table: number, now: number): LastMerge | undefined {
	const last = store.prepare<LastMerge & { kind: string; first: number | null }>(LAST).get(table)
	const isOpen = last?.kind === 'bring in again' && last.first !== null && now - last.at < UNDOABLE_MS
	return isOpen ? last : undefined
}
