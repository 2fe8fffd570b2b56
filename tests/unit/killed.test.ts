/** Killed with SIGKILL at each step and started again: nothing is lost, nothing doubled inside, a repeat is dropped. */
import Database from 'better-sqlite3'
import { spawnSync } from 'node:child_process'
import { cpSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, describe, expect, test } from 'vitest'
import { makeDemo } from '../../demo/make-demo.ts'

let made: string

beforeAll(async () => {
	made = mkdtempSync(join(tmpdir(), 'tin-shed-killed-'))
	await makeDemo(made, Date.now())
})

function runTrial(folder: string, step: string) {
	return spawnSync(process.execPath, ['build/threads/queue-trial.js', folder, step], {
		encoding: 'utf8',
		timeout: 40_000
	})
}

/** What there is of the trial: rows, cases, messages, and how often the stand-in took it in. */
function found(folder: string) {
	const db = new Database(join(folder, 'workspace.db'))
	// The leases of a killed program would run for a minute; the test does not wait for that.
	db.exec('UPDATE job SET locked_until = 0 WHERE done_at IS NULL AND locked_until IS NOT NULL')
	const one = (sql: string): number => Number(db.prepare(sql).pluck().get())
	const label = db
		.prepare(`SELECT name FROM sqlite_schema WHERE type = 'view' AND name = 'table Spend requests'`)
		.pluck()
		.get()
	const counts = {
		rows: one(`SELECT count(*) FROM "${String(label)}" WHERE "What for" = 'A trial winch'`),
		cases: one(
			`SELECT count(*) FROM signoff_case WHERE asked_at > (SELECT max(made_at) FROM release) AND state = 'waiting' AND id > 140`
		),
		messages: one(`SELECT count(*) FROM message WHERE subject LIKE '%A trial winch%'`),
		taken: one(`SELECT count(*) FROM post_tray WHERE subject LIKE '%A trial winch%'`),
		repeats: one(`SELECT coalesce(sum(repeats), 0) FROM post_tray WHERE subject LIKE '%A trial winch%'`),
		open: one('SELECT count(*) FROM job WHERE done_at IS NULL')
	}
	db.close()
	return counts
}

describe('killed and started again', () => {
	test.each([
		['saved', 0],
		['claimed', 0],
		// The message was taken in, but that was not written down: it is sent again, and known by its id.
		['sent', 1],
		['finished', 0]
	])('at "%s"', (step, repeats) => {
		const folder = mkdtempSync(join(tmpdir(), 'tin-shed-trial-'))
		cpSync(made, folder, { recursive: true })
		expect(runTrial(folder, step).signal).toBe('SIGKILL')
		expect(found(folder).rows).toBe(1)
		expect(runTrial(folder, 'work off').status).toBe(0)
		expect(found(folder)).toEqual({ rows: 1, cases: 1, messages: 1, taken: 1, repeats, open: 0 })
	})

	test('after the first steps of what a clock started: the rest goes on, and each is told once', () => {
		const folder = mkdtempSync(join(tmpdir(), 'tin-shed-trial-'))
		cpSync(made, folder, { recursive: true })
		expect(runTrial(folder, 'ran').signal).toBe('SIGKILL')
		found(folder)
		expect(runTrial(folder, 'work off').status).toBe(0)
		const db = new Database(join(folder, 'workspace.db'), { readonly: true })
		const told = db
			.prepare(`SELECT subject FROM post_tray WHERE subject LIKE 'Stock sheet of %' ORDER BY subject`)
			.pluck()
		const states = db.prepare(`SELECT DISTINCT state FROM run WHERE routine = 'sheet'`).pluck()
		expect([told.all(), states.all()]).toEqual([['Stock sheet of Gull Stair', 'Stock sheet of Varrow Quay'], ['done']])
		db.close()
	})

	test('while the change is on its way: all of it is there, or none', () => {
		const folder = mkdtempSync(join(tmpdir(), 'tin-shed-trial-'))
		cpSync(made, folder, { recursive: true })
		expect(runTrial(folder, 'asked').signal).toBe('SIGKILL')
		expect(runTrial(folder, 'work off').status).toBe(0)
		const { rows, cases, messages, taken } = found(folder)
		expect([rows, cases, messages, taken]).toEqual(Array.from({ length: 4 }, () => rows))
	})
})
