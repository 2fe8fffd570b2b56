/** What the writing connection knows by itself of its tables' turns: never too few, whatever turned them and whatever became of it. */
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { openForReading } from '$lib/server/store/open.ts'
import { rememberSettled, settledTurns, settleTurns } from '$lib/server/store/turns.ts'
import { standingOf } from '$lib/server/rights/rights-of-actor.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import type { Store } from '$lib/server/store/store.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [BOATS, CLERKS, CORRIE] = [2, 10, 2]
const by = { actor: { person: KEEPER }, now: NOW, through: 'grid' as const }
const file = join(mkdtempSync(join(tmpdir(), 'tin-shed-turns-')), 'workspace.db')
let store: Store

beforeEach(() => {
	store = openScratch({
		file: `${file}-${Math.floor(performance.now() * 1000)}`,
		now: NOW,
		roles: [{ id: CLERKS, name: 'Clerks', includes: [] }],
		tables: [
			{ id: BOATS, name: 'boats', keepers: [KEEPER], label: 20, columns: [{ id: 20, name: 'name', type: 'text' }] }
		]
	})
	store.db.exec(`INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${CORRIE}, 0, 0, 'Corrie', 'corrie')`)
})
afterEach(() => void store.db.close())

/** As the writer does after a commit. */
function epochs(): number {
	settleTurns(store.db)
	return settledTurns(store.db, 'access_epoch') ?? 0
}
const holds = () => standingOf(store, { person: CORRIE }, NOW).roles.has(CLERKS)
const give = () => store.db.exec(`INSERT INTO role_held (person, role) VALUES (${CORRIE}, ${CLERKS})`)

test('a role that is given turns the epoch, and is held at once', () => {
	const before = epochs()
	expect(holds()).toBe(false)
	give()
	expect([epochs() > before, holds()]).toEqual([true, true])
})

test('a role that was given and undone is not held, whether that was looked at in between or not', () => {
	for (const looks of [true, false, true]) {
		settleTurns(store.db)
		store.db.exec('SAVEPOINT trial')
		give()
		if (looks) expect(holds()).toBe(true)
		store.db.exec('ROLLBACK TO trial; RELEASE trial')
		expect(holds()).toBe(false)
		// As the writer does after a group in which one change was undone.
		settleTurns(store.db)
		expect(holds()).toBe(false)
	}
})

test('turns are settled by a commit, and open again with the next', () => {
	const settled = () => settledTurns(store.db, 'access_epoch')
	const before = epochs()
	expect(settled()).toBe(before)
	give()
	expect([settled(), holds()]).toEqual([undefined, true])
	expect(epochs()).toBeGreaterThan(before)
	expect([settled() !== undefined, holds()]).toEqual([true, true])
})

test('what follows from a table is read once while it stands, and each time while it may not', () => {
	let reads = 0
	const count = rememberSettled('app', ({ db }) => {
		reads++
		return Number(db.prepare('SELECT count(*) FROM app WHERE live_release IS NOT NULL').pluck().get())
	})
	const add = () => store.db.exec(`INSERT INTO app (name, colour, made_at, made_by) VALUES ('Quayside', 'sea', 0, 1)`)
	const release = () => store.db.exec(`UPDATE app SET live_release = 1 WHERE live_release IS NULL`)
	settleTurns(store.db)
	expect([count(store), count(store), reads]).toEqual([0, 0, 1])
	add()
	store.db.exec('SAVEPOINT trial')
	release()
	expect([count(store), count(store), reads]).toEqual([1, 1, 3])
	store.db.exec('ROLLBACK TO trial; RELEASE trial')
	settleTurns(store.db)
	expect([count(store), count(store), reads]).toEqual([0, 0, 4])
	release()
	settleTurns(store.db)
	expect([count(store), count(store), reads]).toEqual([1, 1, 5])
})

test('a change of a person’s row turns it; one of a boat does not', () => {
	const person = store.ids.toId(1, CORRIE)
	const [before] = [epochs(), holds()]
	changeRows(store, [{ kind: 'add', table: BOATS, cells: [{ column: 20, value: 'Dunlin' }] }], by)
	expect(epochs()).toBe(before)
	changeRows(store, [{ kind: 'change', table: 1, row: person, cells: [{ column: 1, value: 'Corrie A.' }] }], by)
	expect(epochs()).toBeGreaterThan(before)
})

test('a connection that only reads knows nothing of turns, and so asks', () => {
	const reading = openForReading(store.db.name, () => undefined)
	expect(settledTurns(reading, 'access_epoch')).toBeUndefined()
	reading.close()
})

test('the first row that waits on a decision is closed at once, and open again if that is undone', () => {
	const [boat] = changeRows(store, [{ kind: 'add', table: BOATS, cells: [{ column: 20, value: 'Knot' }] }], by)
	const row = boat?.row ?? ''
	const rename = (value: string) =>
		changeRows(store, [{ kind: 'change', table: BOATS, row, cells: [{ column: 20, value }] }], by)
	rename('Petrel')
	const n = store.ids.fromId(BOATS, row)
	const names = (
		store.db.pragma('table_info(signoff_case)') as { name: string; notnull: number; type: string; pk: number }[]
	).filter(({ notnull, pk }) => notnull === 1 && pk === 0)
	const given: Record<string, unknown> = { table_id: BOATS, row_n: n, state: 'waiting', signoff: '{"children":[]}' }
	const values = names.map(({ name, type }) => given[name] ?? (type === 'INTEGER' ? 1 : '{}'))
	store.db.exec('SAVEPOINT trial; PRAGMA defer_foreign_keys = ON')
	store.db
		.prepare(
			`INSERT INTO signoff_case (${names.map(({ name }) => name).join(', ')}) VALUES (${names.map(() => '?').join(', ')})`
		)
		.run(...values)
	expect(() => rename('Ruff')).toThrow('is waiting on a decision')
	store.db.exec('ROLLBACK TO trial; RELEASE trial')
	expect(rename('Ruff')).toHaveLength(1)
})
