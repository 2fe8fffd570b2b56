/** Numbers for new tables, columns and roles. They are never used again, whatever is removed. */
import type { Store } from './store.ts'

const READ = `SELECT value FROM meta WHERE key = ?`
const WRITE = `INSERT INTO meta (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value`

export type Numbered = 'table' | 'column' | 'role'

/** Takes the next `count` numbers and gives the first of them. Numbers below 100 are the program's own. */
export function takeNumbers(store: Store, of: Numbered, count: number): number {
	const key = `next ${of}`
	const next = Number(store.prepare<string>(READ).pluck().get(key) ?? 100)
	store.prepare(WRITE).run(key, String(next + count))
	return next
}
