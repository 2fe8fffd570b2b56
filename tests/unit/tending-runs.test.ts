/** What a builder does with routines and reads of their runs, and trying one before it is released. */
import { beforeEach, describe, expect, test } from 'vitest'
import { readOwnDay } from '$lib/server/logbook/own-day.ts'
import { startNow } from '$lib/server/apps/start-now.ts'
import { tryRoutine } from '$lib/server/apps/try-routine.ts'
import { KEEPER } from '../support/scratch-store.ts'
import { listRuns, readRun, routineStates } from '$lib/server/routines/read-runs.ts'
import { cancelRun, setRoutineOn } from '$lib/server/routines/tend-runs.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	by,
	documentOfRoutines,
	DAY,
	IMKE,
	ITEMS,
	messagesOf,
	NOW,
	openStock,
	release,
	routine,
	runsOf,
	setItem,
	STOCK,
	WIM,
	workOff,
	tell,
	setNote,
	setStock,
	asWriter,
	CREW,
	ORDERS,
	STORES,
	ordersOf,
	MANY
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

describe('what a builder does with routines', () => {
	test('paused, it starts nothing by the clock and holds what is under way; then that goes on', () => {
		const app = release(store, [routine({ steps: [tell] })])
		asWriter(store, () => setRoutineOn(store, { app, routine: 'r', on: false, ...by }))
		setStock(store, 4)
		workOff(store)
		expect(messagesOf(store)).toEqual([])
		asWriter(store, () => setRoutineOn(store, { app, routine: 'r', on: true, ...by }))
		workOff(store)
		expect(messagesOf(store)).toHaveLength(1)
	})

	test('of which ten thousand runs wait it is stopped, whoever released it is told, and what waits is kept', () => {
		const app = release(store, [routine({ steps: [tell] })])
		store.db.exec(`
			WITH RECURSIVE many (i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM many WHERE i < 9998)
			INSERT INTO run (id, app, release, routine, state, due_at, stack, began_at)
			SELECT i, ${app}, 1, 'r', 'ready', ${NOW}, '[]', ${NOW} FROM many`)
		setStock(store, 4)
		expect(routineStates(store, { app, ...by })[0]?.paused).toBeNull()
		setStock(store, 40)
		setStock(store, 4)
		expect(routineStates(store, { app, ...by })[0]?.paused).toContain('10,000 runs of it wait')
		expect(messagesOf(store)).toMatchObject([{ person: KEEPER, subject: 'Low stock was stopped' }])
		workOff(store)
		expect(runsOf(store)).toHaveLength(10_000)
		expect(messagesOf(store)).toHaveLength(1)
	})

	describe('started by hand', () => {
		const clock = { kind: 'clock', days: 'every Monday', at: '08:00', missed: 'not at all' } as const
		const toWim = { ...tell, to: '"wim@varrow.example"', subject: 'The week', body: '' }
		const start = (app: number, parts: Partial<Parameters<typeof startNow>[1]> = {}) =>
			asWriter(store, () => startNow(store, { app, routine: 'r', ...by, ...parts }))

		test('one of the clock does what it does then, once, and the Logbook says who it was', () => {
			const app = release(store, [routine({ start: clock, steps: [toWim] })])
			start(app)
			expect(() => start(app)).toThrow('less than a minute ago')
			workOff(store)
			expect(messagesOf(store)).toMatchObject([{ person: WIM, subject: 'The week' }])
			expect(store.prepare(`SELECT person, kind FROM history WHERE through = 'Routines'`).all()).toEqual([
				{ person: KEEPER, kind: 'start routine' }
			])
			start(app, { now: NOW + 61_000 })
			workOff(store, NOW + 61_000)
			expect(messagesOf(store)).toHaveLength(2)
		})

		test('not while it is paused, not one that starts with rows, and not by who may not release it', () => {
			const app = release(store, [
				routine({ start: clock, steps: [{ id: 'e', kind: 'each', table: ITEMS, where: '', lines: [tell] }] }),
				routine({ id: 'rows', steps: [tell] })
			])
			expect(() => start(app, { routine: 'rows' })).toThrow('Release it first')
			expect(() => start(app, { actor: { person: IMKE } })).toThrow(/builder/i)
			store.db.exec(`INSERT INTO role_held (person, role) VALUES (${WIM}, ${BUILDER})`)
			expect(() => start(app, { actor: { person: WIM } })).toThrow('somebody else keeps')
			asWriter(store, () => setRoutineOn(store, { app, routine: 'r', on: false, ...by }))
			expect(() => start(app)).toThrow('It is paused')
			expect(runsOf(store)).toEqual([])
		})
	})

	test('cancelled, a run ends where it waits', () => {
		const app = release(store, [routine({ steps: [{ id: 'w', kind: 'wait', many: 1, span: 'days' }, tell] })])
		setStock(store, 4)
		workOff(store)
		const [run] = listRuns(store, { app, routine: 'r', ...by })
		asWriter(store, () => cancelRun(store, { app, run: run?.id ?? '', ...by }))
		workOff(store, NOW + 2 * DAY)
		expect(messagesOf(store)).toEqual([])
	})

	test('reads each step, but of rows and people only what is theirs to see', () => {
		const app = release(store, [routine({ steps: [tell] })])
		setStock(store, 4)
		workOff(store)
		const id = listRuns(store, { app, routine: 'r', ...by })[0]?.id ?? ''
		expect(readRun(store, { app, id, ...by })).toMatchObject({
			...{ row: 'Shackle', by: 'Imke', state: 'done', standsAt: '' },
			steps: [{ step: 't', cameTo: 'sent', person: 'Wim', row: 'Shackle' }]
		})
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${WIM + 1}, 2); INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${WIM + 1}, 0, 0, 'Jory', 'jory')`) // prettier-ignore
		const seen = readRun(store, { app, id, actor: { person: WIM + 1 }, now: NOW })
		expect(JSON.stringify(seen)).not.toMatch(/Shackle|Imke|Wim/)
		expect(() => readRun(store, { app, id, actor: { person: IMKE }, now: NOW })).toThrow()
	})
})

describe('who does not see every row and column that a routine reads', () => {
	const SEES = WIM + 1
	const reads = { ...tell, body: 'It cost {cost}' }
	beforeEach(() => {
		store.db.exec(`
			INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${SEES}, 0, 0, 'Jory', 'jory');
			INSERT INTO role_held (person, role) VALUES (${SEES}, ${BUILDER}), (${SEES}, ${CREW})`)
	})
	const asJory = { actor: { person: SEES }, now: NOW }

	test('reads of its runs neither how many there are nor what they came to, though the rows are seen', () => {
		const app = release(store, [routine({ steps: [reads] })])
		setStock(store, 4)
		workOff(store)
		expect(listRuns(store, { app, routine: 'r', ...asJory })).toEqual([])
		expect(routineStates(store, { app, ...asJory })[0]?.counts).toBeNull()
		const id = listRuns(store, { app, routine: 'r', ...by })[0]?.id ?? ''
		const sheet = readRun(store, { app, id, ...asJory })
		expect(sheet).toMatchObject({ isHeld: false, steps: [], row: '', by: '', standsAt: '' })
		// It is the column alone that keeps them back.
		const other = release(store, [routine({ steps: [{ ...tell, to: '"wim@varrow.example"' }] })])
		expect(routineStates(store, { app: other, ...asJory })[0]?.counts).toMatchObject({ done: 0 })
	})

	test('finds no run by counting on from one that is known', () => {
		const app = release(store, [routine({ steps: [tell] })])
		setStock(store, 4)
		for (const id of ['1', '2', store.ids.toId(ITEMS, 1)]) expect(readRun(store, { app, id, ...by })).toBeUndefined()
	})
})

test('what a role did stands in nobody’s own day, whoever set it off', () => {
	const add = { id: 'a', kind: 'add', table: ORDERS, lines: [] } as const
	release(store, [routine({ acts: STORES, steps: [add] })])
	setStock(store, 4)
	workOff(store)
	expect(ordersOf(store)).toHaveLength(1)
	expect(readOwnDay(store, { actor: { person: IMKE }, now: NOW }).map(({ table }) => table)).toEqual(['items'])
})

describe('tried on the last seven days', () => {
	const tryIt = (parts: Parameters<typeof routine>[0], actor = by.actor) => {
		const document = documentOfRoutines([routine(parts)])
		const [tried] = document.routines
		if (!tried) throw new Error('Expected a routine')
		return tryRoutine(store, { document, routine: tried, actor, now: NOW + DAY })
	}

	test('a crossing is counted as it would have been, with the saves that start nothing, and nothing is done', () => {
		for (const value of [30, 24, 20, 30, 3]) setStock(store, value)
		setStock(store, 2, 2)
		const before = store.pluck(`SELECT count(*) FROM history`)
		const tried = tryIt({ steps: [tell, { id: 'i', kind: 'if', where: 'stock < 3', lines: [setNote('"x"')] }] })
		expect(tried).toMatchObject({ starts: 3, read: 6, isCut: false, why: '' })
		// The newest first; the second save under the least was no crossing.
		expect(tried.shown.map(({ row, by: who, starts }) => [row, who, starts])).toEqual([
			['Chain', 'Imke', true],
			['Shackle', 'Imke', true],
			['Shackle', 'Imke', false],
			['Shackle', 'Imke', true]
		])
		expect(tried.steps).toEqual({ t: '3 messages', i: '1 of 3', n: 'set once' })
		expect([store.pluck(`SELECT count(*) FROM history`), messagesOf(store), runsOf(store)]).toEqual([before, [], []])
	})

	test('what was saved before is not counted, and a message to nobody is', () => {
		setItem(store, 1, [{ column: STOCK, value: 3 }], IMKE, NOW - 8 * DAY)
		expect(tryIt({ steps: [tell] }).starts).toBe(0)
		setStock(store, 0, 3, KEEPER)
		expect(tryIt({ steps: [tell] })).toMatchObject({ starts: 1, steps: { t: '0 of 1 name somebody' } })
	})

	test('by the clock it says when it comes, and how many rows it would go through', () => {
		const start = { kind: 'clock', days: 'every working day', at: '08:00', missed: 'each' } as const
		const each = { id: 'e', kind: 'each', table: ITEMS, where: 'stock > 30', lines: [tell] } as const
		expect(tryIt({ start, steps: [each] })).toMatchObject({ starts: 5, steps: { e: '2 rows', t: '2 messages' } })
	})

	test('through more steps than are followed it says the least', () => {
		const add = store.db.prepare(`INSERT INTO t3 (n, made_at, changed_at, c30, c31) VALUES (?, 0, 0, 1, 0)`)
		for (let n = 1; n <= 3_000; n++) add.run(n)
		const start = { kind: 'clock', days: 'every day', at: '08:00', missed: 'each' } as const
		const count = { id: 's', kind: 'set', column: MANY, formula: 'many + 1' } as const
		const each = { id: 'e', kind: 'each', table: ORDERS, where: '', lines: [count] } as const
		expect(tryIt({ start, acts: STORES, steps: [each] }).steps['e']).toBe('at least 2500 rows')
		expect(ordersOf(store)[0]?.many).toBe(0)
	})

	test('who does not keep the table learns nothing of it', () => {
		setStock(store, 3)
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${WIM}, ${BUILDER})`)
		const tried = tryIt({ steps: [tell] }, { person: WIM })
		expect(tried).toMatchObject({ starts: 0, shown: [], steps: {} })
		expect(tried.why).not.toBe('')
		expect(() => tryIt({ steps: [tell] }, { person: IMKE })).toThrow('Only builders')
	})
})
