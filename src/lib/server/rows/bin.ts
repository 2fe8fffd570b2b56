/** Removed rows lie in a bin for thirty days, out of every read, and can be brought back until then. */
import type { SqlValue } from '$lib/core/query/sql.ts'
import type { Table } from '$lib/core/table/types.ts'
import type { Store } from '../store.ts'
import type { ChangeContext } from './change.ts'
import type { StoredRow } from './stored-row.ts'

const PUT = `
	INSERT OR REPLACE INTO bin (table_id, row_n, body, removed_at, removed_by)
	VALUES (@table, @row, @body, @now, @person)`
/** What has lain there for longer goes with the next removal. */
const KEPT_MS = 30 * 86_400_000
const EMPTY_OLD = `DELETE FROM bin WHERE removed_at < ?`
const TAKE = `DELETE FROM bin WHERE table_id = ? AND row_n = ? RETURNING body`

export function putInBin(store: Store, table: Table, row: StoredRow, { now, actor }: ChangeContext): void {
	store.prepare(EMPTY_OLD).run(now - KEPT_MS)
	const whole = store.prepare(`SELECT * FROM t${table.id} WHERE n = ?`).get(row.n)
	store.prepare(PUT).run({ table: table.id, row: row.n, body: JSON.stringify(whole), now, person: actor.person })
	store.prepare(`DELETE FROM t${table.id} WHERE n = ?`).run(row.n)
}

/** Puts a row back as it was; false if it is not in the bin. */
export function takeFromBin(store: Store, table: Table, n: number): boolean {
	const body = store.prepare(TAKE).pluck().get(table.id, n) as string | undefined
	if (body === undefined) return false
	const whole = Object.entries(JSON.parse(body) as Record<string, SqlValue>).filter(([name]) => !isKeptTotal(name))
	const names = whole.map(([name]) => name).join(', ')
	const marks = whole.map(() => '?').join(', ')
	store.prepare(`INSERT INTO t${table.id} (${names}) VALUES (${marks})`).run(...whole.map(([, value]) => value))
	store.prepare(`UPDATE t${table.id} SET rev = rev + 1 WHERE n = ?`).run(n)
	return true
}

/** A row that was removed had no children; what other formulas made of its totals meanwhile does not matter. */
function isKeptTotal(name: string): boolean {
	return /^c\d+t\d/.test(name)
}
