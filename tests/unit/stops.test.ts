/** A search that nobody waits for, or that takes too long, ends from inside; the connection answers the next question. */
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest'
import { AppError } from '$lib/core/app-error.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { registerFunctions } from '$lib/server/store/register-functions.ts'
import { readAnchors } from '$lib/server/rows/read-anchors.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { RowsRequest } from '$lib/server/rows/resolve.ts'
import type { Store } from '$lib/server/store/store.ts'
import { openReaders, type Readers, type ReadersParts } from '$lib/server/threads/readers.ts'
import { isStopped, makeStopFlag } from '$lib/server/threads/stop-flag.ts'

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

/** Three sets deep: each row of the innermost set is looked at for each of every row outside it, `rows` cubed for each row. */
const DEEP =
	'COUNT(FILTER(group.members; COUNT(FILTER(group.members; COUNT(FILTER(group.members; length > this.length)) > 0)) > 0)) > 1'

/** A small table, all of one group: what is deep over it is long. */
function makeGroup(file: string, rows: number): Store {
	const made = openScratch({
		file,
		now: NOW,
		tables: [
			{ id: 3, name: 'groups', keepers: [KEEPER], label: 30, columns: [{ id: 30, name: 'name', type: 'text' }] },
			{
				id: TABLE,
				name: 'boats',
				keepers: [KEEPER],
				label: 20,
				columns: [
					{ id: 20, name: 'boat', type: 'text' },
					{ id: 21, name: 'length', type: 'decimal', places: 1 },
					{ id: 22, name: 'group', type: 'reference', to: 3, reverseName: 'members' }
				]
			}
		]
	})
	made.db.exec(`
		INSERT INTO t3 (n, made_at, changed_at, c30, c30k) VALUES (1, 0, 0, 'All', 'all');
		WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < ${rows})
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c22) SELECT n, 0, 0, 'Boat ' || n, 'boat ' || n, n % 300, 1 FROM i`)
	return made
}

test.each([40, 264])('sets within sets ask as well, over a table of %i rows', (rows) => {
	const small = makeGroup(':memory:', rows)
	let asked = 0
	registerFunctions(small.db, () => {
		if (++asked > 1_000) throw new AppError('busy', 'This was stopped.')
	})
	const began = performance.now()
	expect(() => readRows(small, actor, { table: TABLE, where: [DEEP] }, NOW)).toThrow('This was stopped.')
	expect(performance.now() - began).toBeLessThan(10_000)
	small.db.close()
})

describe('readers, as they are built', () => {
	const script = resolve('build/threads/reader.js')
	const key = 'ab'.repeat(32)
	const makeFile = (make: (file: string, rows: number) => Store, rows: number): string => {
		const file = join(mkdtempSync(join(tmpdir(), 'tin-shed-stops-')), 'workspace.db')
		make(file, rows).db.close()
		return file
	}
	const open = (file: string, parts: Partial<ReadersParts> = {}) =>
		openReaders({ script, data: { file, key }, onNews: () => undefined, least: 1, most: 1, ...parts })
	const asking = { actor, request: nowhere, now: NOW }
	const deep = { actor, request: { table: TABLE, where: [DEEP] }, now: NOW }
	let sightings: string
	let boats: string
	let readers: Readers

	beforeAll(() => {
		sightings = makeFile(makeStore, 300_000)
		boats = makeFile(makeGroup, 264)
	})
	afterEach(() => readers.close())

	test('end a search when whoever asked has gone, and answer whoever waits', async () => {
		readers = await open(sightings)
		const ending = new AbortController()
		const search = readers.ask('rows', asking, { signal: ending.signal })
		const next = readers.ask('workspace', undefined)
		ending.abort()
		await expect(search).rejects.toMatchObject({ code: 'busy' })
		expect(JSON.parse(await next)).toMatchObject({ timeZone: 'UTC' })
	})

	test('do not begin what nobody waits for any more', async () => {
		readers = await open(sightings)
		await expect(readers.ask('rows', asking, { signal: AbortSignal.abort() })).rejects.toMatchObject({ code: 'busy' })
		const ending = new AbortController()
		const first = readers.ask('rows', asking)
		const waiting = readers.ask('rows', asking, { signal: ending.signal })
		ending.abort()
		await expect(waiting).rejects.toMatchObject({ code: 'busy' })
		expect(JSON.parse(await first)).toMatchObject({ rows: [] })
	})

	test('go to the end for who waits, also after others were stopped', async () => {
		readers = await open(sightings)
		const { signal } = new AbortController()
		expect(JSON.parse(await readers.ask('rows', asking, { signal }))).toMatchObject({ rows: [] })
		const labelled = { ...asking, request: { table: TABLE, labelIs: 'Boat 299999' } }
		expect((JSON.parse(await readers.ask('rows', labelled)) as { rows: unknown[] }).rows).toHaveLength(1)
	})

	test('leave a condition of three sets, soon after nobody waits for it', async () => {
		readers = await open(boats)
		const ending = new AbortController()
		const long = readers.ask('rows', deep, { signal: ending.signal })
		// One reader: whatever is answered now is answered after it was left.
		const next = readers.ask('workspace', undefined)
		ending.abort()
		await expect(long).rejects.toMatchObject({ code: 'busy' })
		expect(JSON.parse(await next)).toMatchObject({ timeZone: 'UTC' })
	})

	test('one that is past its limit is ended, and another takes its place', async () => {
		readers = await open(boats, { limitMs: 300 })
		await expect(readers.ask('rows', deep)).rejects.toThrow('took too long')
		expect(JSON.parse(await readers.ask('workspace', undefined))).toMatchObject({ timeZone: 'UTC' })
	})

	test('somebody who asks for much at once holds up nobody else', async () => {
		readers = await open(boats, { least: 2, most: 3, limitMs: 4_000 })
		const greedy = Array.from({ length: 62 }, () => readers.ask('rows', deep, { person: 7 }))
		const refused = Promise.allSettled(greedy)
		const answered = await Promise.race([
			readers.ask('workspace', undefined, { person: 8 }).then(() => 'answered'),
			Promise.race(greedy.slice(0, 2)).catch(() => 'only after theirs')
		])
		expect(answered).toBe('answered')
		await readers.close()
		const said = (await refused).map((each) => (each.status === 'rejected' ? String(each.reason) : 'answered'))
		expect(said.filter((each) => each.includes('Too much was asked for at once'))).toHaveLength(0)
		expect(said.filter((each) => each.includes('closing')).length).toBeGreaterThan(0)
	})

	test('more than sixty waiting questions of one person are refused', async () => {
		readers = await open(boats, { limitMs: 4_000 })
		const all = Promise.allSettled(Array.from({ length: 70 }, () => readers.ask('rows', deep, { person: 7 })))
		await readers.close()
		const said = (await all).map((each) => (each.status === 'rejected' ? String(each.reason) : 'answered'))
		expect(said.filter((each) => each.includes('Too much was asked for at once'))).toHaveLength(9)
	})
})

test('a question is stopped by its own number, and no other is', () => {
	const flag = makeStopFlag()
	expect(isStopped(flag.fd, 1)).toBe(false)
	flag.stop(300)
	expect([44, 300, 556].map((id) => isStopped(flag.fd, id))).toEqual([false, true, false])
	flag.close()
})
