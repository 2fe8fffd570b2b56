/** A search that nobody waits for, or that takes too long, ends from inside; the connection answers the next question. */
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { AppError } from '$lib/core/app-error.ts'
import { KEEPER, openScratch } from '$lib/server/check-values/scratch-store.ts'
import { registerFunctions } from '$lib/server/db/register-functions.ts'
import { readAnchors, readRows, type RowsRequest } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store.ts'
import { startThread, type Thread } from '$lib/server/threads/thread.ts'
import { isStopped, makeStops, stopQuestion } from '$lib/server/threads/stops.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const TABLE = 2
const ROWS = 40_000
const actor = { person: KEEPER }
let store: Store
let ticks = 0
let mayGoOn = true

/** Boats that were sighted, as many as wanted. */
function makeStore(file: string, rows: number): Store {
	const made = openScratch({
		file,
		now: NOW,
		tables: [
			{
				id: TABLE,
				name: 'sightings',
				keepers: [KEEPER],
				label: 20,
				columns: [
					{ id: 20, name: 'boat', type: 'text' },
					{ id: 21, name: 'length', type: 'decimal', places: 1 }
				]
			}
		]
	})
	made.db.exec(`
		WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < ${rows})
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21) SELECT n, 0, 0, 'Boat ' || n, 'boat ' || n, n % 300 FROM i`)
	return made
}

beforeAll(() => {
	store = makeStore(':memory:', ROWS)
	registerFunctions(store.db, () => {
		ticks++
		if (!mayGoOn) throw new AppError('busy', 'This was stopped.')
	})
})

afterAll(() => void store.db.close())

const nowhere: RowsRequest = { table: TABLE, filters: [{ column: 0, is: 'contains', text: 'no such boat' }] }

test.each([
	['a page that looks in any column', () => readRows(store, actor, nowhere, NOW)],
	[
		'a page in an order without an index',
		() => readRows(store, actor, { ...nowhere, sort: { column: 21, descending: true } }, NOW)
	],
	[
		'a page of what a condition finds',
		() => readRows(store, actor, { table: TABLE, where: ['length * 2 = 601'] }, NOW)
	],
	['where the pages of a search start', () => readAnchors(store, actor, nowhere, NOW)]
])('%s asks every 8,192 rows whether it is to go on', (_what, read) => {
	mayGoOn = true
	ticks = 0
	read()
	expect(ticks).toBeGreaterThanOrEqual(Math.floor(ROWS / 8192))
	mayGoOn = false
	expect(read).toThrow('This was stopped.')
	mayGoOn = true
	expect(readRows(store, actor, { table: TABLE, labelIs: 'Boat 7' }, NOW).rows).toHaveLength(1)
})

describe('a reader thread, as it is built', () => {
	let thread: Thread
	const asking = { actor, request: nowhere, now: NOW }

	beforeAll(async () => {
		const file = join(mkdtempSync(join(tmpdir(), 'tin-shed-stops-')), 'workspace.db')
		makeStore(file, 300_000).db.close()
		thread = await startThread(resolve('build/threads/reader.js'), { file, key: 'ab'.repeat(32) }, () => undefined)
	})
	afterAll(() => thread.close())

	test('ends a search when whoever asked has gone, and answers whoever waits', async () => {
		const ending = new AbortController()
		const search = thread.ask('rows', asking, ending.signal)
		const next = thread.ask('workspace', undefined)
		ending.abort()
		await expect(search).rejects.toMatchObject({ code: 'busy' })
		expect(JSON.parse(await next)).toMatchObject({ timeZone: 'UTC' })
	})

	test('does not begin what nobody waits for any more', async () => {
		await expect(thread.ask('rows', asking, AbortSignal.abort())).rejects.toMatchObject({ code: 'busy' })
	})

	test('goes to the end for who waits, also after others were stopped', async () => {
		expect(JSON.parse(await thread.ask('rows', asking, new AbortController().signal))).toMatchObject({ rows: [] })
		const labelled = { ...asking, request: { table: TABLE, labelIs: 'Boat 299999' } }
		expect((JSON.parse(await thread.ask('rows', labelled)) as { rows: unknown[] }).rows).toHaveLength(1)
	})
})

test('a question is stopped by its own number, and no other is', () => {
	const stops = makeStops()
	expect(isStopped(stops, 1)).toBe(false)
	stopQuestion(stops, 300)
	expect([44, 300, 556].map((id) => isStopped(stops, id))).toEqual([false, true, false])
	stopQuestion(stops, 2 ** 32 + 5)
	expect(isStopped(stops, 2 ** 32 + 5)).toBe(true)
})
