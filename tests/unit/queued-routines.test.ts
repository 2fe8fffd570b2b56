/** What waited in the queue before routines became runs goes on as runs, from its first message on. */
import Database from 'better-sqlite3'
import { readdirSync, readFileSync } from 'node:fs'
import { expect, test } from 'vitest'

const MIGRATIONS = 'src/lib/server/store/migrations'

test('later steps that were queued become runs; what they had set is not set again', () => {
	const db = new Database(':memory:')
	const files = readdirSync(MIGRATIONS).filter((name) => name < '0019').sort() // prettier-ignore
	for (const name of files) db.exec(readFileSync(`${MIGRATIONS}/${name}`, 'utf8'))
	const steps = (kinds: readonly string[]) => kinds.map((kind, i) => ({ id: `s${i}`, kind }))
	const body = {
		routines: [
			{ id: 'r', steps: steps(['set', 'set', 'send', 'send']) },
			{ id: 'q', steps: steps(['send']) }
		]
	}
	db.pragma('foreign_keys = OFF')
	db.prepare(`INSERT INTO release (app, number, body, made_at, made_by, note) VALUES (1, 2, ?, 0, 1, '')`).run(JSON.stringify(body)) // prettier-ignore
	const queue = db.prepare(`INSERT INTO job (run_at, task, payload, done_at) VALUES (?, ?, ?, ?)`)
	const payload = (routine: string) => JSON.stringify({ app: 1, release: 2, routine, table: 101, row: 7, person: 3, depth: 2 }) // prettier-ignore
	queue.run(50, 'routine', payload('r'), null)
	queue.run(60, 'routine', payload('q'), null)
	queue.run(10, 'routine', payload('r'), 11)
	queue.run(70, 'post', '{"message":1}', null)
	db.exec(readFileSync(`${MIGRATIONS}/0019-runs.sql`, 'utf8'))
	expect(db.prepare(`SELECT routine, person, row_table AS "table", row_n AS "row", depth, state, due_at AS due, stack FROM run`).all()).toEqual([
		{ routine: 'r', person: 3, table: 101, row: 7, depth: 2, state: 'ready', due: 50, stack: '[{"row":7,"at":2}]' },
		{ routine: 'q', person: 3, table: 101, row: 7, depth: 2, state: 'ready', due: 60, stack: '[{"row":7,"at":0}]' }
	]) // prettier-ignore
	expect(db.prepare('SELECT task FROM job').pluck().all()).toEqual(['post'])
	db.close()
})
