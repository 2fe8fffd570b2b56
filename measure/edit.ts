/**
 * A cell edit with all that belongs to it (lines, guards, a computed column, kept totals, history, seal, commit) against
 * a transaction written by hand that writes the same rows to a file of its own, at the same `synchronous` setting.
 */
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import { KEEPER, openScratch } from '../tests/support/scratch-store.ts'
import { settleTurns } from '../src/lib/server/store/turns.ts'
import { changeRows } from '../src/lib/server/rows/change.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import { paired } from './timing.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const [MOORINGS, INSPECTIONS] = [2, 3]
const RUNS = 1_500
/** Before it is timed: a server is asked again and again, and neither side is to be measured while it is being compiled. */
const WARM_UP = 10_000
const ROWS = 100_000

export function measureEdit(folder: string): { ours: number; byHand: number } {
	const store = fill(join(folder, 'edit.db'))
	const hand = fill(join(folder, 'by-hand.db'))
	dropTriggers(hand)
	let i = 0
	const ids = Array.from({ length: ROWS + 1 }, (_id, n) => store.ids.toId(INSPECTIONS, n))
	const context = { actor: { person: KEEPER }, now: NOW, through: 'grid' as const }
	const ours = () => {
		const row = ids[((++i * 7919) % ROWS) + 1] ?? ''
		store.db.exec('BEGIN IMMEDIATE')
		changeRows(store, [{ kind: 'change', table: INSPECTIONS, row, cells: [{ column: 41, value: i % 500 }] }], context)
		store.db.exec('COMMIT')
		settleTurns(store.db)
	}
	const statements = byHand(hand)
	let j = 0
	const byHandOnce = () => statements(((++j * 7919) % ROWS) + 1, j % 500)
	paired(ours, byHandOnce, WARM_UP)
	const result = paired(ours, byHandOnce, RUNS)
	store.db.close()
	hand.db.close()
	return result
}

/** The same rows: the child with its computed column, its parent's two totals, a sealed entry of history. */
export function byHand({ db }: Store): (n: number, cost: number) => void {
	const update = db.prepare(
		`UPDATE t3 SET rev = rev + 1, changed_by = 1, changed_at = ?, c41 = ?, c42 = ? WHERE n = ? RETURNING c40, c41`
	)
	const before = db.prepare('SELECT c41 FROM t3 WHERE n = ?').pluck()
	const parent = db.prepare('UPDATE t2 SET c30t0s = c30t0s + ?, c31t0n = c31t0n + ? WHERE n = ?')
	const last = db.prepare('SELECT seal FROM history ORDER BY seq DESC LIMIT 1').pluck()
	const entry = db.prepare(
		`INSERT INTO history (at, person, through, kind, table_id, row_n, body, seal) VALUES (?, 1, 'grid', 'change', 3, ?, ?, ?)`
	)
	return (n, cost) => {
		db.exec('BEGIN IMMEDIATE')
		const was = Number(before.get(n))
		const now = cost * 100
		const row = update.get(NOW, now, now * 2, n) as { c40: number }
		parent.run(now - was, Number(now > 10_000) - Number(was > 10_000), row.c40)
		const body = JSON.stringify({ before: { c41: was, c42: was * 2 }, after: { c41: now, c42: now * 2 } })
		const seal = createHash('sha256')
			.update(String(last.get() ?? ''))
			.update(body)
			.digest('hex')
		entry.run(NOW, n, body, seal)
		db.exec('COMMIT')
	}
}

/** By hand the parent's totals are written by a statement of their own. */
function dropTriggers({ db }: Store): void {
	const names = db.prepare(`SELECT name FROM sqlite_schema WHERE type = 'trigger'`).pluck().all() as string[]
	for (const name of names) db.exec(`DROP TRIGGER ${name}`)
}

export function fill(file: string): Store {
	const store = openScratch({
		file,
		now: NOW,
		tables: [
			{
				id: MOORINGS,
				name: 'moorings',
				keepers: [KEEPER],
				label: 20,
				columns: [
					{ id: 20, name: 'code', type: 'text' },
					{ id: 30, name: 'cost', type: 'computed', formula: 'SUM(inspections.cost)' },
					{ id: 31, name: 'dear', type: 'computed', formula: 'COUNT(FILTER(inspections; cost > 100))' }
				]
			},
			{
				id: INSPECTIONS,
				name: 'inspections',
				keepers: [KEEPER],
				label: 43,
				columns: [
					{ id: 40, name: 'mooring', type: 'reference', to: MOORINGS },
					{ id: 41, name: 'cost', type: 'money' },
					{ id: 42, name: 'twice', type: 'computed', formula: 'cost * 2' },
					{ id: 43, name: 'note', type: 'text' }
				]
			}
		]
	})
	store.db.exec(`
		WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < 1000)
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k) SELECT n, 0, 0, 'M-' || n, 'm-' || n FROM i;
		WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < ${ROWS})
		INSERT INTO t3 (n, made_at, changed_at, c40, c41, c42) SELECT n, 0, 0, n % 1000 + 1, 0, 0 FROM i`)
	return store
}
