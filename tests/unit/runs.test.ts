/** Routines that run: what starts them, what their steps do as whom, and what becomes of refusals, faults and waits. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import { readDraft } from '$lib/server/apps/apps.ts'
import { pressButton } from '$lib/server/routines/press-button.ts'
import { listRuns, readRun, routineStates } from '$lib/server/routines/read-runs.ts'
import { tryRoutine } from '$lib/server/routines/try-routine.ts'
import { routineSchema } from '$lib/core/routine/routine.ts'
import { setWorkspace } from '$lib/server/structure/set-workspace.ts'
import { cancelRun, setRoutineOn, tryRunAgain } from '$lib/server/routines/tend-runs.ts'
import { readRelease } from '$lib/server/releases/live.ts'
import { BUILDER, STEWARD } from '$lib/server/rights/system-roles.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	by,
	DAY,
	DUE,
	HOUR,
	IMKE,
	itemOf,
	ITEM,
	ITEMS,
	LEAST,
	MANY,
	messagesOf,
	NOTE,
	NOW,
	OF,
	openStock,
	ORDERS,
	release,
	REMARK,
	routine,
	runsOf,
	setItem,
	STOCK,
	STORES,
	WIM,
	workOff
} from '../support/quay-stock.ts'
import { KEEPER } from '../support/scratch-store.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

const tell = {
	id: 't',
	kind: 'send',
	to: 'held by',
	subject: '{item} is low',
	body: '{stock} left of {least}'
} as const
const setNote = (formula: string, id = 'n') => ({ id, kind: 'set', column: NOTE, formula }) as const
const stock = (value: number, n = 1, person = IMKE) => setItem(store, n, [{ column: STOCK, value }], person)

function asAnybody<T>(work: () => T): T {
	return store.db.transaction(work)()
}

describe('a crossing', () => {
	test('tells once when the stock falls under its least, and again only after it has risen', () => {
		release(store, [routine({ start: { kind: 'comes', table: ITEMS, where: 'stock < 25' }, steps: [tell] })])
		const told = (value: number) => {
			stock(value)
			workOff(store)
			return messagesOf(store).length
		}
		// 24 is under 25, and 25 is not.
		expect([30, 25, 24, 10, 24, 25, 26, 3].map(told)).toEqual([0, 0, 1, 1, 1, 1, 1, 2])
		expect(messagesOf(store)[0]).toEqual({ person: WIM, subject: 'Shackle is low', body: '24 left of 25' })
	})

	test('of a row that is added is one where it fits at once', () => {
		release(store, [routine({ steps: [tell] })])
		const cells = [{ column: ITEM, value: 'Ring' }, { column: STOCK, value: 1 }, { column: LEAST, value: 2 }] // prettier-ignore
		asAnybody(() => changeRows(store, [{ kind: 'add', table: ITEMS, cells }], { ...by, through: 'grid' }))
		expect(runsOf(store)).toHaveLength(1)
	})

	test('a change of other columns is none, though the condition holds', () => {
		stock(3)
		release(store, [routine({ steps: [tell] })])
		setItem(store, 1, [{ column: NOTE, value: 'looked at' }])
		expect(runsOf(store)).toEqual([])
	})

	test.each([
		['due < TODAY()', 'comes true by itself'],
		['COUNT(orders) > 2', 'reads other rows']
	])('to %s keeps a release back: it %s', (where, says) => {
		const routines = [routine({ start: { kind: 'comes', table: ITEMS, where }, steps: [tell] })]
		expect(() => release(store, routines)).toThrow(says)
	})
})

describe('every save while it is so', () => {
	test('starts each time, which a crossing does not', () => {
		const start = { kind: 'rows', table: ITEMS, when: 'changed', where: 'stock < least' } as const
		release(store, [routine({ start, steps: [tell] })])
		for (const value of [3, 4, 5]) stock(value)
		workOff(store)
		expect(messagesOf(store)).toHaveLength(3)
	})
})

describe('steps', () => {
	const acts = STORES

	test('go into an "If" that holds and over an "Otherwise", and the other way', () => {
		const steps = [
			{ id: 'i', kind: 'if', where: 'stock < 10', lines: [setNote('"very low"', 'a')] } as const,
			{ id: 'e', kind: 'else', lines: [setNote('"low"', 'b')] } as const
		]
		release(store, [routine({ acts, steps })])
		stock(3)
		stock(20, 2)
		workOff(store)
		expect([itemOf(store, 1)['note'], itemOf(store, 2)['note']]).toEqual(['very low', 'low'])
	})

	test('add a row that points to the one at hand, filled over it', () => {
		const lines = [
			{ id: 'l', kind: 'link', column: OF } as const,
			{ id: 'c1', kind: 'cell', column: MANY, formula: 'least - stock' } as const,
			{ id: 'c2', kind: 'cell', column: REMARK, formula: '"For " & item' } as const
		]
		release(store, [routine({ acts, steps: [{ id: 'a', kind: 'add', table: ORDERS, lines }] })])
		stock(3)
		workOff(store)
		expect(orders()).toEqual([{ of: 1, many: 22, remark: 'For Shackle' }])
	})

	test('go through each row that fits, and reach the row around as "this"', () => {
		store.db.exec(`INSERT INTO t3 (n, made_at, changed_at, c30, c31, c32, c32k) VALUES (1, 0, 0, 1, 5, 'a', 'a'), (2, 0, 0, 2, 6, 'b', 'b'), (3, 0, 0, 1, 7, 'c', 'c')`) // prettier-ignore
		const remark = { id: 's', kind: 'set', column: REMARK, formula: 'remark & ": " & this.item & " " & this.stock' } as const // prettier-ignore
		const each = { id: 'e', kind: 'each', table: ORDERS, where: 'of.item = this.item', lines: [remark] } as const
		release(store, [routine({ acts, steps: [each, setNote('"told"')] })])
		stock(4)
		workOff(store)
		expect(orders().map(({ remark: text }) => text)).toEqual(['a: Shackle 4', 'b', 'c: Shackle 4'])
		expect(itemOf(store, 1)['note']).toBe('told')
	})

	test('go through more rows than one batch takes, each once', () => {
		const add = store.db.prepare(`INSERT INTO t3 (n, made_at, changed_at, c30, c31) VALUES (?, 0, 0, 1, 0)`)
		for (let n = 1; n <= 130; n++) add.run(n)
		const count = { id: 's', kind: 'set', column: MANY, formula: 'many + 1' } as const
		release(store, [routine({ acts, steps: [{ id: 'e', kind: 'each', table: ORDERS, where: '', lines: [count] }] })])
		stock(4)
		workOff(store)
		expect(new Set(orders().map(({ many }) => many))).toEqual(new Set([1]))
		expect(runsOf(store)[0]?.state).toBe('done')
	})

	test('wait, and go on with the row as it is then; a row that is gone ends it', () => {
		const wait = { id: 'w', kind: 'wait', many: 2, span: 'days' } as const
		release(store, [routine({ steps: [wait, tell] })])
		stock(4)
		stock(5, 2)
		workOff(store)
		expect(messagesOf(store)).toEqual([])
		stock(6)
		const gone = { kind: 'remove' as const, table: ITEMS, row: store.ids.toId(ITEMS, 2) }
		asAnybody(() => changeRows(store, [gone], { ...by, through: 'grid' }))
		workOff(store, NOW + 2 * DAY - 1)
		expect(messagesOf(store)).toEqual([])
		workOff(store, NOW + 2 * DAY)
		expect(messagesOf(store).map(({ body }) => body)).toEqual(['6 left of 25'])
		expect(runsOf(store).map(({ state }) => state)).toEqual(['done', 'done'])
	})

	test('wait so many working days on: from a Sunday the fifth is the Friday', () => {
		const wait = { id: 'w', kind: 'wait', many: 5, span: 'working days' } as const
		release(store, [routine({ steps: [wait, tell] })])
		stock(4)
		workOff(store)
		expect(dueAt()).toBe('2026-12-04T12:00:00.000Z')
	})

	test('do not count days on which nobody works, and a clock passes them over', () => {
		const wait = { id: 'w', kind: 'wait', many: 2, span: 'working days' } as const
		const start = { kind: 'clock', days: 'every working day', at: '12:30', missed: 'each' } as const
		const app = release(store, [routine({ steps: [wait, tell] }), routine({ id: 'c', start, steps: [{ ...tell, to: '"wim@varrow.example"', subject: 'Day', body: '' }] })]) // prettier-ignore
		const holidays = '30 Nov 2026 Founders’ day\n1 Dec 2026 Day of the lamps'
		asAnybody(() => setWorkspace(store, { name: 'Scratch', timeZone: 'UTC', locale: 'en-GB', holidays, ...by }))
		expect(routineStates(store, { app, ...by }).find((each) => each.routine === 'c')?.nextAt).toBe(Date.parse('2026-12-02T12:30:00Z')) // prettier-ignore
		stock(4)
		workOff(store)
		expect(dueAt()).toBe('2026-12-03T12:00:00.000Z')
	})

	test('end where it says so', () => {
		release(store, [routine({ steps: [{ id: 'x', kind: 'stop' }, tell] })])
		stock(4)
		workOff(store)
		expect(messagesOf(store)).toEqual([])
		expect(runsOf(store)[0]?.state).toBe('done')
	})
})

describe('as whom it acts', () => {
	test('what nobody presses writes only as a role: the check says so', () => {
		const routines = [routine({ steps: [setNote('"x"')] })]
		expect(() => release(store, routines)).toThrow('say at the start which role it acts as')
	})

	test('as a role it may what that role may, whoever set it off, and the history says so', () => {
		release(store, [routine({ acts: STORES, steps: [setNote('"low"')] })])
		expect(() => setItem(store, 1, [{ column: NOTE, value: 'x' }], IMKE)).toThrow('may not change')
		stock(4)
		workOff(store)
		expect(itemOf(store, 1)['note']).toBe('low')
		const entry = store.prepare(`SELECT person, through FROM history WHERE through LIKE 'routine%'`).get()
		expect(entry).toEqual({ person: IMKE, through: 'routine Low stock as Stores keepers' })
	})

	test('and no more: a row that the role does not see is refused, though whoever set it off keeps it', () => {
		release(store, [routine({ acts: STORES, steps: [setNote('"low"')] })])
		stock(0, 3, KEEPER)
		workOff(store)
		expect(itemOf(store, 3)['note']).toBeNull()
		expect(runsOf(store)[0]).toMatchObject({ state: 'given up', error: expect.stringContaining('not there') })
	})

	test('who may not give the role cannot release it', () => {
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${WIM}, 2)`)
		const routines = [routine({ start: { kind: 'button', table: ITEMS }, acts: STORES, steps: [setNote('"x"')] })]
		expect(() => release(store, routines, { person: WIM })).toThrow()
		expect(() => release(store, routines)).not.toThrow()
	})

	test('whose maker may not give the role any more stops, with the reason', () => {
		const app = release(store, [routine({ acts: STORES, steps: [setNote('"low"')] })])
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${WIM}, ${STEWARD}); DELETE FROM role_held WHERE person = ${KEEPER} AND role = ${STEWARD}`) // prettier-ignore
		stock(4)
		workOff(store)
		expect(itemOf(store, 1)['note']).toBeNull()
		expect(runsOf(store)[0]?.error).toContain('may not give')
		expect(routineStates(store, { app, ...by })[0]?.paused).toContain('may not give')
	})
})

describe('a refusal', () => {
	const steps = [
		setNote('"begun"', 'a'),
		{ id: 'w', kind: 'wait', many: 1, span: 'hours' } as const,
		setNote('1 / 0', 'b')
	]

	test('gives the run up at once with its sentence, and what was done before stays', () => {
		release(store, [routine({ acts: STORES, steps })])
		stock(4)
		workOff(store)
		workOff(store, NOW + HOUR)
		expect(itemOf(store, 1)['note']).toBe('begun')
		expect(runsOf(store)[0]).toMatchObject({ state: 'given up', error: expect.stringContaining('could not be worked out') }) // prettier-ignore
	})

	test('can be tried again from where it stands, once what it met is mended', () => {
		const app = release(store, [
			routine({ acts: STORES, steps: [setNote('"begun"', 'a'), { id: 's', kind: 'set', column: LEAST, formula: '100 / stock' }] }) // prettier-ignore
		])
		stock(0)
		workOff(store)
		const [run] = listRuns(store, { app, routine: 'r', ...by })
		expect(run).toMatchObject({ state: 'given up', row: 'Shackle', by: 'Imke' })
		stock(20)
		asAnybody(() => tryRunAgain(store, { app, run: run?.id ?? 0, ...by }))
		workOff(store)
		expect(itemOf(store, 1)).toMatchObject({ note: 'begun', least: 5 })
		expect(() => tryRunAgain(store, { app, run: run?.id ?? 0, ...by })).toThrow('was not given up')
	})

	test('a fault of the program is tried three times, and then waits too', () => {
		release(store, [routine({ acts: STORES, steps: [setNote('"x"')] })])
		stock(4)
		store.db.exec(`CREATE TRIGGER broken BEFORE UPDATE OF c23 ON t2 BEGIN SELECT RAISE(ABORT, 'broken'); END`)
		const states = [0, 1, 10, 60].map((seconds) => {
			workOff(store, NOW + seconds * 1000)
			return runsOf(store)[0]?.state
		})
		expect(states).toEqual(['waiting', 'waiting', 'waiting', 'given up'])
		expect(itemOf(store, 1)['note']).toBeNull()
	})
})

describe('chains', () => {
	test('that would never end are stopped, and say so', () => {
		const start = { kind: 'rows', table: ITEMS, when: 'changed', where: '' } as const
		release(store, [routine({ start, acts: STORES, steps: [{ id: 's', kind: 'set', column: LEAST, formula: 'least + 1' }] })]) // prettier-ignore
		stock(4)
		workOff(store)
		expect(itemOf(store, 1)['least']).toBe(35)
		expect(runsOf(store).at(-1)).toMatchObject({ state: 'given up', error: expect.stringContaining('never end') })
	})
})

describe('a button', () => {
	const press = (person: number, n = 1, app = 1) =>
		asAnybody(() => {
			const [found] = readRelease(store, app, 1).routines
			if (!found) throw new Error('Expected a routine')
			return pressButton(store, { app, release: 1, routine: found, row: store.ids.toId(ITEMS, n), actor: { person }, now: NOW }) // prettier-ignore
		})
	const start = { kind: 'button', table: ITEMS } as const

	test('says its words as whoever pressed may see the row, and can be taken back', () => {
		release(store, [routine({ start, steps: [{ id: 's', kind: 'set', column: STOCK, formula: 'stock - 1' }, { id: 'y', kind: 'say', words: '{item}: {stock} left, cost {cost}' }] })]) // prettier-ignore
		expect(press(IMKE)).toMatchObject({ says: 'Shackle: 39 left, cost ', entry: expect.any(Number) })
		expect(press(WIM).says).toBe('Shackle: 38 left, cost 7')
	})

	test('does all that it does at once, or nothing', () => {
		const steps = [{ id: 's', kind: 'set', column: STOCK, formula: 'stock - 1' } as const, { id: 'i', kind: 'if', where: 'TRUE', lines: [setNote('"x"')] } as const] // prettier-ignore
		release(store, [routine({ start, steps })])
		expect(() => press(IMKE)).toThrow('You may not change "note"')
		expect(itemOf(store, 1)['stock']).toBe(40)
		expect(runsOf(store)).toEqual([])
	})

	test('that acts as a role does what whoever presses may not, and tells them nothing of a refusal', () => {
		release(store, [routine({ start, acts: STORES, steps: [setNote('"x"')] })])
		press(IMKE)
		expect(itemOf(store, 1)['note']).toBe('x')
		expect(() => press(IMKE, 3)).toThrow('what the button does was refused')
		expect(() => press(77)).toThrow('not there')
	})

	test('sends after the commit, once', () => {
		release(store, [routine({ start, steps: [tell] })])
		press(IMKE)
		expect(messagesOf(store)).toEqual([])
		workOff(store)
		workOff(store)
		expect(messagesOf(store)).toHaveLength(1)
	})
})

describe('by the clock', () => {
	const start = { kind: 'clock', days: 'every Monday', at: '12:00', missed: 'once for all' } as const
	const send = { ...tell, to: '"wim@varrow.example"', subject: 'Monday', body: '' }

	test('Monday noon of the workspace, whatever zone the machine is in; once, and the next week again', () => {
		store = openStock({ timeZone: 'Pacific/Auckland' })
		release(store, [routine({ start, steps: [send] })])
		// Noon of Monday 30 November in Auckland, thirteen hours ahead in summer.
		const noon = Date.parse('2026-11-29T23:00:00Z')
		const sent = [noon - 1, noon, noon + HOUR, noon + 7 * DAY - 1, noon + 7 * DAY].map((now) => {
			workOff(store, now)
			return messagesOf(store).length
		})
		expect(sent).toEqual([0, 1, 1, 1, 2])
	})

	test.each([
		['once for all', 1],
		['each', 3],
		['not at all', 0]
	] as const)('missed ones %s: %i', (missed, wanted) => {
		release(store, [routine({ start: { ...start, missed }, steps: [send] })])
		workOff(store, NOW + 16 * DAY)
		expect(messagesOf(store)).toHaveLength(wanted)
		// A clock set back brings nothing anew.
		workOff(store, NOW + 2 * DAY)
		expect(messagesOf(store)).toHaveLength(wanted)
	})

	test('goes through rows of a table as its role, with nobody as whose doing it was', () => {
		const each = { id: 'e', kind: 'each', table: ITEMS, where: 'stock < 50', lines: [setNote('"counted"')] } as const
		release(store, [routine({ start, acts: STORES, steps: [each] })])
		workOff(store, NOW + 2 * DAY)
		expect([1, 2, 3].map((n) => itemOf(store, n)['note'])).toEqual(['counted', null, null])
		const entry = store.prepare(`SELECT person FROM history WHERE through LIKE 'routine%'`).get()
		expect(entry).toEqual({ person: null })
	})

	test('a step that needs a row keeps a release back outside of any', () => {
		expect(() => release(store, [routine({ start, acts: STORES, steps: [setNote('"x"')] })])).toThrow(
			'There is no row here'
		)
		expect(() => release(store, [routine({ start: { ...start, days: 'now and then' }, steps: [send] })])).toThrow('says no days') // prettier-ignore
	})
})

describe('before a date', () => {
	const start = { kind: 'due', table: ITEMS, many: 3, side: 'before', column: DUE, at: '08:00', where: '' } as const
	const due = (n: number, value: string) => setItem(store, n, [{ column: DUE, value }])
	const told = (now: string) => {
		workOff(store, Date.parse(now))
		return messagesOf(store).map(({ subject }) => subject)
	}

	test('starts for each row on its day, once, and catches up after a stop', () => {
		release(store, [routine({ start, steps: [tell] })])
		due(1, '2026-12-03')
		due(2, '2026-12-06')
		due(3, '2026-12-02')
		expect(told('2026-11-30T07:59:00Z')).toEqual([])
		expect(told('2026-11-30T08:00:00Z')).toEqual(['Shackle is low'])
		expect(told('2026-11-30T09:00:00Z')).toEqual(['Shackle is low'])
		// Down from the first to the fourth of December; the third row's day was past already.
		expect(told('2026-12-04T10:00:00Z')).toEqual(['Shackle is low', 'Chain is low'])
	})

	test('looked for again on the same day, it starts nothing a second time', () => {
		release(store, [routine({ start, steps: [tell] })])
		due(1, '2026-12-03')
		told('2026-11-30T08:00:00Z')
		store.db.exec(`UPDATE routine_clock SET next_at = ${Date.parse('2026-11-30T09:00:00Z')}, last_at = NULL`)
		expect(told('2026-11-30T09:00:00Z')).toHaveLength(1)
	})

	test('a date that moves on starts it again, for the new day', () => {
		release(store, [routine({ start, steps: [tell] })])
		due(1, '2026-12-03')
		told('2026-11-30T08:00:00Z')
		due(1, '2026-12-04')
		expect(told('2026-12-01T08:00:00Z')).toHaveLength(2)
	})
})

describe('what a builder does with routines', () => {
	test('paused, it starts nothing by the clock and holds what is under way; then that goes on', () => {
		const app = release(store, [routine({ steps: [tell] })])
		asAnybody(() => setRoutineOn(store, { app, routine: 'r', on: false, ...by }))
		stock(4)
		workOff(store)
		expect(messagesOf(store)).toEqual([])
		asAnybody(() => setRoutineOn(store, { app, routine: 'r', on: true, ...by }))
		workOff(store)
		expect(messagesOf(store)).toHaveLength(1)
	})

	test('cancelled, a run ends where it waits', () => {
		const app = release(store, [routine({ steps: [{ id: 'w', kind: 'wait', many: 1, span: 'days' }, tell] })])
		stock(4)
		workOff(store)
		const [run] = listRuns(store, { app, routine: 'r', ...by })
		asAnybody(() => cancelRun(store, { app, run: run?.id ?? 0, ...by }))
		workOff(store, NOW + 2 * DAY)
		expect(messagesOf(store)).toEqual([])
	})

	test('reads each step, but of rows and people only what is theirs to see', () => {
		const app = release(store, [routine({ steps: [tell] })])
		stock(4)
		workOff(store)
		const id = listRuns(store, { app, routine: 'r', ...by })[0]?.id ?? 0
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

describe('tried on the last seven days', () => {
	const parsed = (parts: Parameters<typeof routine>[0]) => routineSchema.parse(routine(parts))
	const tryIt = (parts: Parameters<typeof routine>[0], actor = by.actor) =>
		tryRoutine(store, { routine: parsed(parts), actor, now: NOW + DAY })

	test('a crossing is counted as it would have been, with the saves that start nothing, and nothing is done', () => {
		for (const value of [30, 24, 20, 30, 3]) stock(value)
		stock(2, 2)
		const before = store.pluck(`SELECT count(*) FROM history`)
		const tried = tryIt({ steps: [tell, { id: 'i', kind: 'if', where: 'stock < 3', lines: [setNote('"x"')] }] })
		expect(tried).toMatchObject({ starts: 3, read: 6, isCut: false, unseen: 0, why: '' })
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
		stock(0, 3, KEEPER)
		expect(tryIt({ steps: [tell] })).toMatchObject({ starts: 1, steps: { t: '0 of 1 name somebody' } })
	})

	test('by the clock it says when it comes, and how many rows it would go through', () => {
		const start = { kind: 'clock', days: 'every working day', at: '08:00', missed: 'each' } as const
		const each = { id: 'e', kind: 'each', table: ITEMS, where: 'stock > 30', lines: [tell] } as const
		expect(tryIt({ start, steps: [each] })).toMatchObject({ starts: 5, steps: { e: '2 rows', t: '2 messages' } })
	})

	test('who does not keep the table learns nothing of it', () => {
		stock(3)
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${WIM}, ${BUILDER})`)
		const tried = tryIt({ steps: [tell] }, { person: WIM })
		expect(tried).toMatchObject({ starts: 0, shown: [], steps: {} })
		expect(tried.why).not.toBe('')
		expect(() => tryIt({ steps: [tell] }, { person: IMKE })).toThrow('Only builders')
	})
})

test('the check names the line that would not work', () => {
	const steps = [{ id: 'i', kind: 'if', where: 'stock <', lines: [] } as const, { id: 'o', kind: 'else', lines: [setNote('"x"')] } as const, { id: 'o2', kind: 'else', lines: [] } as const] // prettier-ignore
	const app = release(store, [routine({ steps: [tell] })])
	const { document } = readDraft(store, app)
	const found = checkApp({ ...document, routines: [{ ...document.routines[0], steps }] as typeof document.routines }, store.workspace()) // prettier-ignore
	const places = found
		.filter(({ place }) => place.startsWith('Routine'))
		.map(({ place, message }) => `${place}: ${message}`)
	expect(places).toEqual([
		expect.stringMatching(/^Routine Low stock, line 1: /),
		expect.stringMatching(/line 3: .*which role it acts as/),
		expect.stringMatching(/line 4: "Otherwise" comes right after an "If"/)
	])
})

function orders(): { of: number; many: number; remark: string }[] {
	return store
		.prepare<{ of: number; many: number; remark: string }>(
			`SELECT c30 AS of, c31 AS many, c32 AS remark FROM t3 ORDER BY n`
		)
		.all()
}

function dueAt(): string {
	return new Date(Number(store.pluck(`SELECT due_at FROM run`))).toISOString()
}
