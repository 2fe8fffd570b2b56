/**
 * Routines that run: steps inside in batches against one commit each, both beside a transaction written by hand that writes the
 * same rows (the row, a sealed entry of history, where the run stands); what a thousand starts on a table add to an edit; and
 * finding what is due beside very many runs that wait or were given up.
 */
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import { appSchema, APP_FORMAT } from '../src/lib/core/app/document.ts'
import { addAppFrom } from '../src/lib/server/apps/apps.ts'
import { releaseApp } from '../src/lib/server/apps/release-app.ts'
import { BUILDER } from '../src/lib/server/rights/system-roles.ts'
import { runRoutines } from '../src/lib/server/routines/run-batch.ts'
import { addRun, dueRuns } from '../src/lib/server/routines/runs.ts'
import { changeRows } from '../src/lib/server/rows/change.ts'
import { settleTurns } from '../src/lib/server/store/turns.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import { accessLine } from '../tests/support/access-line.ts'
import { KEEPER, openScratch } from '../tests/support/scratch-store.ts'
import { median, paired, time } from './timing.ts'

export const NOW = Date.parse('2026-11-23T12:00:00Z')
export const [ITEMS, NAME, STOCK, SEEN] = [2, 20, 21, 22]
export const CREW = 10
const ROWS = 5_000
const STARTS = 1_000
export const by = { actor: { person: KEEPER }, now: NOW }

export interface RunFigures {
	/** Steps a second. */
	readonly batches: number
	readonly oneByOne: number
	readonly byHand: number
	/** An edit in ms, with a thousand starts that read what it changes and without any. */
	readonly withStarts: number
	readonly without: number
	/** Finding fifty that are due, in ms: alone, and beside 100,000 that wait and 100,000 that were given up. */
	readonly due: number
	readonly dueBeside: number
}

export function measureRuns(folder: string): RunFigures {
	const store = openItems(join(folder, 'runs.db'))
	const app = release(store, 1)
	const batches = stepsASecond(store, app, (work) => store.db.transaction(work)(), 50)
	const oneByOne = stepsASecond(store, app, (work) => store.db.transaction(work)(), 1)
	const byHand = byHandASecond(openItems(join(folder, 'runs-by-hand.db')))
	const edits = measureStarts(folder)
	const due = median(Array.from({ length: 200 }, () => time(() => dueRuns(store, { now: NOW, most: 50 }))))
	fillWithRuns(store)
	const dueBeside = median(Array.from({ length: 200 }, () => time(() => dueRuns(store, { now: NOW, most: 50 }))))
	store.db.close()
	return { batches, oneByOne, byHand, ...edits, due, dueBeside }
}

/** A store of some thousand items, whose builder holds all of it. */
export function openItems(file: string, rows = ROWS): Store {
	const store = openScratch({
		file,
		now: NOW,
		roles: [{ id: CREW, name: 'Crew', includes: [] }],
		lines: [accessLine({ id: 'c', table: ITEMS, role: CREW, verbs: ['see', 'change'] })],
		tables: [
			{
				...{ id: ITEMS, name: 'items', keepers: [KEEPER], label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: STOCK, name: 'stock', type: 'whole number' },
					{ id: SEEN, name: 'seen', type: 'whole number' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO role_held (person, role) VALUES (${KEEPER}, ${BUILDER});
		WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < ${rows})
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c22) SELECT n, 0, 0, 'I-' || n, 'i-' || n, n % 50, 0 FROM i`)
	return store
}

/** An app of so many routines that start at crossings of the stock; the first of them counts in a column. */
function release(store: Store, many: number): number {
	const routines = Array.from({ length: many }, (_routine, i) => ({
		...{ id: `r${i}`, name: `R${i}`, acts: CREW },
		start: { kind: 'comes' as const, table: ITEMS, where: `stock < ${-i - 1}` },
		steps: [{ id: 's', kind: 'set' as const, column: SEEN, formula: 'seen + 1' }]
	}))
	const screens = [{ id: 's', title: 'S', lines: [] }]
	const document = appSchema.parse({ format: APP_FORMAT, name: 'R', about: '', colour: 'sea', screens, routines, signoffs: [] }) // prettier-ignore
	return store.db.transaction(() => {
		const app = addAppFrom(store, { document, ...by })
		releaseApp(store, { app, note: '', ...by })
		return app
	})()
}

const STEPS = 2_000

function stepsASecond(store: Store, app: number, commit: (work: () => unknown) => void, most: number): number {
	const begin = (n: number) => addRun(store, { app, release: 1, routine: 'r0', person: KEEPER, on: { table: ITEMS, n: (n % ROWS) + 1 }, path: ['r0'], now: NOW }) // prettier-ignore
	const work = () => {
		for (let done = 0; done < STEPS; done += most) {
			store.db.transaction(() => {
				for (let i = 0; i < most; i++) begin(done + i)
			})()
			for (let isLeft = true; isLeft;) commit(() => (isLeft = runRoutines(store, { now: NOW })))
		}
	}
	work()
	return (STEPS / time(work)) * 1000
}

/** Fifty claims a commit: the row, the entry, where the run stands. */
function byHandASecond({ db }: Store): number {
	const begin = db.prepare(`INSERT INTO run (app, release, routine, person, row_table, row_n, path, state, due_at, stack, began_at) VALUES (1, 1, 'r0', 1, 2, ?, '["R0"]', 'ready', ?, '[]', ?)`) // prettier-ignore
	const due = db.prepare(`SELECT id, row_n AS n FROM run WHERE state = 'ready' AND due_at <= ? ORDER BY due_at, id LIMIT 50`) // prettier-ignore
	const before = db.prepare('SELECT c22 FROM t2 WHERE n = ?').pluck()
	const update = db.prepare('UPDATE t2 SET rev = rev + 1, changed_at = ?, c22 = ? WHERE n = ?')
	const last = db.prepare('SELECT seal FROM history ORDER BY seq DESC LIMIT 1').pluck()
	const entry = db.prepare(`INSERT INTO history (at, person, through, kind, table_id, row_n, body, seal) VALUES (?, 1, 'r', 'change', 2, ?, ?, ?)`) // prettier-ignore
	const note = db.prepare(`INSERT INTO run_step (run, nth, step, row_table, row_n, came_to, at) VALUES (?, 1, 's', 2, ?, 'set', ?)`) // prettier-ignore
	const end = db.prepare(`UPDATE run SET state = 'done', ended_at = ? WHERE id = ?`)
	const work = () => {
		for (let done = 0; done < STEPS; done += 50) {
			db.exec('BEGIN IMMEDIATE')
			for (let i = 0; i < 50; i++) begin.run(((done + i) % ROWS) + 1, NOW, NOW)
			db.exec('COMMIT')
			db.exec('BEGIN IMMEDIATE')
			for (const { id, n } of due.all(NOW) as { id: number; n: number }[]) {
				const was = Number(before.get(n))
				update.run(NOW, was + 1, n)
				const body = JSON.stringify({ before: { c22: was }, after: { c22: was + 1 } })
				const seal = createHash('sha256').update(String(last.get() ?? '')).update(body).digest('hex') // prettier-ignore
				entry.run(NOW, n, body, seal)
				note.run(id, n, NOW)
				end.run(NOW, id)
			}
			db.exec('COMMIT')
		}
	}
	work()
	const result = (STEPS / time(work)) * 1000
	db.close()
	return result
}

function measureStarts(folder: string): { withStarts: number; without: number } {
	const [many, none] = ['many', 'none'].map((name) => openItems(join(folder, `starts-${name}.db`)))
	if (!many || !none) throw new Error('Expected two stores')
	release(many, STARTS)
	let i = 0
	const edit = (store: Store) => {
		const row = store.ids.toId(ITEMS, ((++i * 7919) % ROWS) + 1)
		store.db.exec('BEGIN IMMEDIATE')
		changeRows(store, [{ kind: 'change', table: ITEMS, row, cells: [{ column: STOCK, value: i % 50 }] }], { ...by, through: 'grid' }) // prettier-ignore
		store.db.exec('COMMIT')
		settleTurns(store.db)
	}
	const edits = () => paired(() => edit(many), () => edit(none), 1_000) // prettier-ignore
	edits()
	const { ours, byHand } = edits()
	many.db.close()
	none.db.close()
	return { withStarts: ours, without: byHand }
}

function fillWithRuns({ db }: Store): void {
	db.exec(`
		WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < 200000)
		INSERT INTO run (app, release, routine, person, row_table, row_n, path, state, due_at, stack, began_at)
		SELECT 1, 1, 'r0', 1, 2, 1, '["R0"]', CASE n % 2 WHEN 0 THEN 'waiting' ELSE 'given up' END, ${NOW} + n % 2 * -1000 + (1 - n % 2) * 86400000, '[]', 0 FROM i`)
}
