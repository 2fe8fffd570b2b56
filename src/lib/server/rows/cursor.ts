/** The place in a list after which its next page begins, as text that a client hands back. */
import { AppError } from '$lib/core/app-error.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { Cursor } from '$lib/core/query/request.ts'
import type { SqlValue } from '$lib/core/sql/sql.ts'
import type { Store } from '../store/store.ts'

/** Names the row by its id, never by its number. */
export function sealCursor(store: Store, table: Table, cursor: Cursor): string {
	const parts = [cursor.branch, cursor.values, store.ids.toId(table.id, cursor.n)]
	return Buffer.from(JSON.stringify(parts)).toString('base64url')
}

/** A cursor is only a place to go on from: whatever a client makes of it, rows pass the same conditions. */
export function openCursor(store: Store, table: Table, text: string | undefined): Cursor | undefined {
	if (!text) return undefined
	try {
		// Each part is looked at below.
		const [branch, values, id] = JSON.parse(Buffer.from(text, 'base64url').toString()) as unknown[]
		const n = typeof id === 'string' ? store.ids.fromId(table.id, id) : undefined
		if (n !== undefined && Number.isInteger(branch) && Array.isArray(values) && values.every(isSqlValue))
			return { branch: Number(branch), values, n }
	} catch {
		// Falls through: a damaged cursor is answered like any other that leads nowhere.
	}
	throw new AppError('invalid', 'This place in the list is no longer known. Load the list again.')
}

function isSqlValue(value: unknown): value is SqlValue {
	return value === null || typeof value === 'string' || typeof value === 'number'
}
