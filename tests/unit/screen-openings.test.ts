/** How screens are used: counted by week, with nobody's name, and of few people nothing but that they were few. */
import { beforeEach, describe, expect, test, vi } from 'vitest'
import { noteOpenings, readOpenings } from '$lib/server/apps/screen-openings.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import { noteOpening } from '$lib/server/web/openings.ts'
import { IMKE, openPorts } from '../support/ports.ts'
import { KEEPER } from '../support/scratch-store.ts'

const DAY = 86_400_000
/** A Monday: ISO 8601 has it in week 49 of 2026. */
const MONDAY = Date.parse('2026-11-30T09:00:00Z')
const by = { actor: { person: KEEPER }, now: MONDAY }

let store: Store

beforeEach(() => {
	store = openPorts()
	store.db.prepare(`INSERT INTO role_held (person, role) VALUES (?, ?)`).run(KEEPER, BUILDER)
})

/** Each of some people opens a screen so often. */
function open(people: readonly number[], { screen = 's', app = 1, times = 1, now = MONDAY } = {}): void {
	noteOpenings(store, { openings: people.map((person) => ({ app, screen, person, times })), now })
}

const among = (count: number) => Array.from({ length: count }, (_each, i) => 100 + i)

test('openings add up, and of each person once', () => {
	open(among(6), { times: 2 })
	open(among(3))
	expect(readOpenings(store, { app: 1, ...by })).toEqual([
		{ week: '2026-11-30', screen: 's', times: 15, people: 6, byVisitors: 0 }
	])
	expect(readOpenings(store, { app: 2, ...by })).toEqual([])
})

test.each([
	[4, null, null],
	[5, 5, 5]
])('of %d people it tells %o times and %o people', (count, times, people) => {
	open(among(count))
	expect(readOpenings(store, { app: 1, ...by })).toMatchObject([{ times, people }])
})

test('who comes without an account is nobody in particular, and counted apart', () => {
	store.db.exec(
		`INSERT INTO app (id, name, colour, made_at, made_by) VALUES (1, 'Quay', 'sea', 0, 1); INSERT INTO visitor (person, app) VALUES (50, 1)`
	)
	open([50, 50, 50])
	open(among(2))
	expect(readOpenings(store, { app: 1, ...by })).toMatchObject([{ times: null, people: null, byVisitors: 3 }])
})

test('weeks stand apart, four of them are shown, and what is older is dropped', () => {
	for (let ago = 0; ago < 12; ago++) open(among(5), { now: MONDAY - (11 - ago) * 7 * DAY })
	expect(readOpenings(store, { app: 1, ...by }).map(({ week }) => week).sort()).toEqual(['2026-11-09', '2026-11-16', '2026-11-23', '2026-11-30']) // prettier-ignore
	expect(store.db.prepare(`SELECT count(DISTINCT week) FROM screen_opening`).pluck().get()).toBe(9)
})

test('nothing that is kept leads back to somebody once the week is over', () => {
	open([IMKE], { now: MONDAY - 7 * DAY })
	const before = store.db.prepare(`SELECT who FROM screen_opening`).pluck().get()
	open([IMKE])
	const all = store.db.prepare(`SELECT who FROM screen_opening ORDER BY week`).pluck().all()
	expect(all[0]).toBe(before)
	expect(all[1]).not.toBe(before)
	expect(store.db.prepare(`SELECT week FROM opening_salt`).pluck().all()).toEqual(['2026-11-30'])
})

test('only builders are told', () => {
	open(among(6))
	expect(() => readOpenings(store, { app: 1, actor: { person: IMKE }, now: MONDAY })).toThrow()
})

describe('openings on their way', () => {
	const MINUTE = 60_000
	/** What one request after the other would have written, each by what it was given itself. */
	function gather(asked: readonly (readonly [screen: string, person: number, minute: number])[]): unknown[] {
		vi.useFakeTimers()
		try {
			const written: unknown[] = []
			for (const [screen, person, minute] of asked) {
				const host = { write: (_name: string, given: unknown) => Promise.resolve(written.push(given)) }
				noteOpening(host as unknown as Parameters<typeof noteOpening>[0], { app: 7, screen, person }, MONDAY + minute * MINUTE) // prettier-ignore
			}
			vi.advanceTimersByTime(5_000)
			return written
		} finally {
			vi.useRealTimers()
		}
	}

	test('are written together, whichever request they came with', () => {
		const one = { app: 7, times: 1 }
		expect(
			gather([
				['a', 1, 0],
				['a', 2, 0],
				['b', 1, 1]
			])
		).toEqual([
			{ now: expect.any(Number) as number, openings: [{ ...one, screen: 'a', person: 1 }, { ...one, screen: 'a', person: 2 }, { ...one, screen: 'b', person: 1 }] } // prettier-ignore
		])
	})

	test('count once for who looks again within a quarter of an hour, and again for who comes back later', () => {
		const [found] = gather([['c', 1, 0], ['c', 1, 10], ['c', 1, 20], ['c', 1, 36]]) as { openings: unknown[] }[] // prettier-ignore
		expect(found?.openings).toHaveLength(2)
	})
})
