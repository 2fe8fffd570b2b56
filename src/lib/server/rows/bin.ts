/** Removed rows lie in a bin for thirty days, out of every read, and can be brought back until then. */
import type { SqlValue } from '$lib/core/sql/sql.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'
import { whoseDoing, type ChangeContext } from './change-context.ts'
import type { StoredRow } from '../store/stored-row.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

const PUT = `
	INSERT OR REPLACE INTO bin (table_id, row_n, body, company, removed_at, removed_by)
	VALUES (@table, @row, @body, @company, @now, @person)`
/** What has lain there for longer goes with the next removal. */
const RETENTION_MS = 30 * 86_400_000
const EMPTY_OLD = `DELETE FROM bin WHERE removed_at < ?`
const IS_THERE = `SELECT 1 FROM bin WHERE table_id = ? AND row_n = ?`
const READ = `SELECT body FROM bin WHERE table_id = ? AND row_n = ?`
const TAKE = `DELETE FROM bin WHERE table_id = ? AND row_n = ? RETURNING body, company`

/** What went with a row: rows of a table that were removed because of it, and cells that pointed to it. */
export interface Cascaded {
	readonly removed: (readonly [table: number, n: number])[]
	readonly cleared: (readonly [table: number, n: number, column: number])[]
}

export function putInBin(
	store: Store,
	table: Table,
	{ row, cascaded }: { row: StoredRow; cascaded: Cascaded },
	context: ChangeContext
): void {
	const { now } = context
	store.prepare(EMPTY_OLD).run(now - RETENTION_MS)
	const whole = store.prepare(`SELECT * FROM t${table.id} WHERE n = ?`).get(row.n)
	const [body, went] = [JSON.stringify(whole), JSON.stringify(cascaded)]
	store.prepare(PUT).run({ table: table.id, row: row.n, body, company: went, now, person: whoseDoing(context) })
	store.prepare(`DELETE FROM t${table.id} WHERE n = ?`).run(row.n)
}

/** Puts a row back as it was, and gives what went with it; undefined if it is not in the bin. */
export function takeFromBin(store: Store, table: Table, n: number): Cascaded | undefined {
	const found = store.prepare<{ body: string; company: string }>(TAKE).get(table.id, n)
	if (found === undefined) return undefined
	const whole = Object.entries(ownJson<Record<string, SqlValue>>(found.body)).filter(([name]) => !isRollup(name))
	const names = whole.map(([name]) => name).join(', ')
	const marks = whole.map(() => '?').join(', ')
	store.prepare(`INSERT INTO t${table.id} (${names}) VALUES (${marks})`).run(...whole.map(([, value]) => value))
	store.prepare(`UPDATE t${table.id} SET rev = rev + 1 WHERE n = ?`).run(n)
	return ownJson<Cascaded>(found.company)
}

/** A row as it lay in its table when it was removed, by the names of its columns there; undefined where it is not in the bin. */
export function readFromBin(store: Store, table: Table, n: number): Readonly<Record<string, SqlValue>> | undefined {
	const body = store.prepare<string>(READ).pluck().get(table.id, n)
	return body === undefined ? undefined : ownJson<Record<string, SqlValue>>(body)
}

export function isInBin(store: Store, table: number, n: number): boolean {
	return store.prepare(IS_THERE).get(table, n) !== undefined
}

/** A row that was removed had no children; what other formulas made of its totals meanwhile does not matter. */
function isRollup(name: string): boolean {
	return /^c\d+t\d/.test(name)
}
