/** A search that nobody waits for, or that takes too long, ends from inside; the connection answers the next question. */
import { afterAll, beforeAll, expect, test } from 'vitest'
import { AppError } from '$lib/core/app-error.ts'
import { KEEPER, openScratch } from '$lib/server/check-values/scratch-store.ts'
import { registerFunctions } from '$lib/server/db/register-functions.ts'
import { readAnchors, readRows, type RowsRequest } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store.ts'
import { isStopped, makeStops, stopQuestion } from '$lib/server/threads/stops.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const TABLE = 2
const ROWS = 40_000
const actor = { person: KEEPER }
let store: Store
let ticks = 0
let mayGoOn = true

beforeAll(() => {
	store = openScratch({
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
	store.db.exec(`
		WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < ${ROWS})
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21) SELECT n, 0, 0, 'Boat ' || n, 'boat ' || n, n % 300 FROM i`)
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

test('a question is stopped by its own number, and no other is', () => {
	const stops = makeStops()
	expect(isStopped(stops, 1)).toBe(false)
	stopQuestion(stops, 300)
	expect([44, 300, 556].map((id) => isStopped(stops, id))).toEqual([false, true, false])
	stopQuestion(stops, 2 ** 32 + 5)
	expect(isStopped(stops, 2 ** 32 + 5)).toBe(true)
})
