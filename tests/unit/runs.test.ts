/** Routines that run: what their steps do as whom, and what becomes of refusals, faults and waits. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import { readDraft } from '$lib/server/apps/apps.ts'
import { pressButton } from '$lib/server/routines/press-button.ts'
import { putBackRelease } from '$lib/server/apps/release-app.ts'
import { readRelease } from '$lib/server/releases/live.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { setWorkspace } from '$lib/server/structure/set-workspace.ts'
import { KEEPER } from '../support/scratch-store.ts'
import { listRuns, routineStates } from '$lib/server/routines/read-runs.ts'
import { tryRunAgain } from '$lib/server/routines/tend-runs.ts'
import { BUILDER, STEWARD } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	by,
	DAY,
	documentOfRoutines,
	HOUR,
	IMKE,
	itemOf,
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
	workOff,
	tell,
	setNote,
	setStock,
	ordersOf,
	asWriter
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

test('a message leads to its row on a screen of the app, where one is named and is there', () => {
	const app = release(store, [routine({ steps: [{ ...tell, opens: 's' }] })])
	setStock(store, 4)
	workOff(store)
	const link = store.pluck<string>('SELECT link FROM message')
	expect(link).toBe(`/app/${app}/s?row=${store.ids.toId(ITEMS, 1)}`)
	const gone = documentOfRoutines([routine({ steps: [{ ...tell, opens: 'gone' }] })])
	expect(checkApp(gone, store.workspace()).map(({ message }) => message)).toEqual(['The screen it opens is gone.'])
})

describe('steps', () => {
	const acts = STORES

	test('go into an "If" that holds and over an "Otherwise", and the other way', () => {
		const steps = [
			{ id: 'i', kind: 'if', where: 'stock < 10', lines: [setNote('"very low"', 'a')] } as const,
			{ id: 'e', kind: 'else', lines: [setNote('"low"', 'b')] } as const
		]
		release(store, [routine({ acts, steps })])
		setStock(store, 3)
		setStock(store, 20, 2)
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
		setStock(store, 3)
		workOff(store)
		expect(ordersOf(store)).toEqual([{ of: 1, many: 22, remark: 'For Shackle' }])
	})

	test('go through each row that fits, and reach the row around as "this"', () => {
		store.db.exec(`INSERT INTO t3 (n, made_at, changed_at, c30, c31, c32, c32k) VALUES (1, 0, 0, 1, 5, 'a', 'a'), (2, 0, 0, 2, 6, 'b', 'b'), (3, 0, 0, 1, 7, 'c', 'c')`) // prettier-ignore
		const remark = { id: 's', kind: 'set', column: REMARK, formula: 'remark & ": " & this.item & " " & this.stock' } as const // prettier-ignore
		const each = { id: 'e', kind: 'each', table: ORDERS, where: 'of.item = this.item', lines: [remark] } as const
		release(store, [routine({ acts, steps: [each, setNote('"told"')] })])
		setStock(store, 4)
		workOff(store)
		expect(ordersOf(store).map(({ remark: text }) => text)).toEqual(['a: Shackle 4', 'b', 'c: Shackle 4'])
		expect(itemOf(store, 1)['note']).toBe('told')
	})

	test('go through more rows than one batch takes, each once', () => {
		const add = store.db.prepare(`INSERT INTO t3 (n, made_at, changed_at, c30, c31) VALUES (?, 0, 0, 1, 0)`)
		for (let n = 1; n <= 130; n++) add.run(n)
		const count = { id: 's', kind: 'set', column: MANY, formula: 'many + 1' } as const
		release(store, [routine({ acts, steps: [{ id: 'e', kind: 'each', table: ORDERS, where: '', lines: [count] }] })])
		setStock(store, 4)
		workOff(store)
		expect(new Set(ordersOf(store).map(({ many }) => many))).toEqual(new Set([1]))
		expect(runsOf(store)[0]?.state).toBe('done')
	})

	test('wait, and go on with the row as it is then; a row that is gone ends it', () => {
		const wait = { id: 'w', kind: 'wait', many: 2, span: 'days' } as const
		release(store, [routine({ steps: [wait, tell] })])
		setStock(store, 4)
		setStock(store, 5, 2)
		workOff(store)
		expect(messagesOf(store)).toEqual([])
		setStock(store, 6)
		const gone = { kind: 'remove' as const, table: ITEMS, row: store.ids.toId(ITEMS, 2) }
		asWriter(store, () => changeRows(store, [gone], { ...by, through: 'grid' }))
		workOff(store, NOW + 2 * DAY - 1)
		expect(messagesOf(store)).toEqual([])
		workOff(store, NOW + 2 * DAY)
		expect(messagesOf(store).map(({ body }) => body)).toEqual(['6 left of 25'])
		expect(runsOf(store).map(({ state }) => state)).toEqual(['done', 'done'])
	})

	test('wait so many working days on: from a Sunday the fifth is the Friday', () => {
		const wait = { id: 'w', kind: 'wait', many: 5, span: 'working days' } as const
		release(store, [routine({ steps: [wait, tell] })])
		setStock(store, 4)
		workOff(store)
		expect(dueAt()).toBe('2026-12-04T12:00:00.000Z')
	})

	const setWork = (parts: Partial<Record<'holidays' | 'week' | 'from' | 'until', string>>) =>
		asWriter(store, () =>
			setWorkspace(store, {
				...{ name: 'Scratch', timeZone: 'UTC', locale: 'en-GB', holidays: '', week: '0,1,2,3,4' },
				...{ from: '09:00', until: '17:00', ...parts, ...by }
			})
		)

	test('go by the week and the hours that a steward says', () => {
		const days = { id: 'w', kind: 'wait', many: 1, span: 'working days' } as const
		const hours = { id: 'h', kind: 'wait', many: 6, span: 'working hours' } as const
		const start = { kind: 'clock', days: 'every working day', at: '08:30', missed: 'each' } as const
		// From Sunday to Thursday, from seven to noon. It is Sunday, at noon.
		setWork({ week: '6,0,1,2,3', from: '07:00', until: '12:00' })
		const app = release(store, [
			routine({ steps: [days, tell] }),
			routine({ id: 'h', steps: [hours, tell] }),
			routine({ id: 'c', start, steps: [{ ...tell, to: '"wim@varrow.example"', subject: 'Day', body: '' }] })
		])
		setStock(store, 4)
		workOff(store)
		const due = store.prepare<number>(`SELECT due_at FROM run WHERE state = 'waiting' ORDER BY id`).pluck().all()
		expect(due.map((at) => new Date(at).toISOString())).toEqual([
			'2026-11-30T12:00:00.000Z',
			'2026-12-01T08:00:00.000Z'
		])
		const next = routineStates(store, { app, ...by }).find((each) => each.routine === 'c')?.nextAt
		expect(next).toBe(Date.parse('2026-11-30T08:30:00Z'))
		setWork({ week: '5', from: '07:00', until: '12:00' })
		const moved = routineStates(store, { app, ...by }).find((each) => each.routine === 'c')?.nextAt
		expect(moved).toBe(Date.parse('2026-12-05T08:30:00Z'))
	})

	test.each([
		['a week without a day', { week: '' }, 'Choose on which days people work'],
		['days that are none', { week: '7,x' }, 'Choose on which days people work'],
		['an end before the beginning', { from: '17:00', until: '09:00' }, 'Work begins and ends on one day'],
		['no time', { from: 'nine' }, 'Work begins and ends on one day']
	])('%s is refused', (_what, parts, says) => expect(() => setWork(parts)).toThrow(says))

	test('do not count days on which nobody works, and a clock passes them over', () => {
		const wait = { id: 'w', kind: 'wait', many: 2, span: 'working days' } as const
		const start = { kind: 'clock', days: 'every working day', at: '12:30', missed: 'each' } as const
		const app = release(store, [routine({ steps: [wait, tell] }), routine({ id: 'c', start, steps: [{ ...tell, to: '"wim@varrow.example"', subject: 'Day', body: '' }] })]) // prettier-ignore
		const holidays = '30 Nov 2026 Founders’ day\n1 Dec 2026 Day of the lamps'
		setWork({ holidays })
		expect(routineStates(store, { app, ...by }).find((each) => each.routine === 'c')?.nextAt).toBe(Date.parse('2026-12-02T12:30:00Z')) // prettier-ignore
		setStock(store, 4)
		workOff(store)
		expect(dueAt()).toBe('2026-12-03T12:00:00.000Z')
	})

	test('end where it says so', () => {
		release(store, [routine({ steps: [{ id: 'x', kind: 'stop' }, tell] })])
		setStock(store, 4)
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
		setStock(store, 4)
		workOff(store)
		expect(itemOf(store, 1)['note']).toBe('low')
		const entry = store.prepare(`SELECT person, through FROM history WHERE through LIKE 'routine%'`).get()
		expect(entry).toEqual({ person: null, through: 'routine Low stock as Stores keepers' })
	})

	test('and no more: a row that the role does not see is refused, though whoever set it off keeps it', () => {
		release(store, [routine({ acts: STORES, steps: [setNote('"low"')] })])
		setStock(store, 0, 3, KEEPER)
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

	test('it goes only through rows of tables that whoever releases it keeps, or sees whole, also where somebody presses', () => {
		store.db.exec(`INSERT INTO role_held (person, role, may_pass_on) VALUES (${WIM}, ${BUILDER}, 0); UPDATE role_held SET may_pass_on = 1 WHERE person = ${WIM} AND role = ${STORES}`) // prettier-ignore
		const each = { id: 'e', kind: 'each', table: ITEMS, where: '', lines: [] } as const
		const whole = { ...each, table: ORDERS }
		const start = { kind: 'button', table: ITEMS } as const
		expect(() => release(store, [routine({ start, acts: STORES, steps: [each] })], { person: WIM })).toThrow('somebody else keeps') // prettier-ignore
		expect(() => release(store, [routine({ start, steps: [each] })], { person: WIM })).not.toThrow()
		expect(() => release(store, [routine({ start, acts: STORES, steps: [whole] })], { person: WIM })).not.toThrow()
	})

	test('whose maker may not give the role any more stops, with the reason', () => {
		const app = release(store, [routine({ acts: STORES, steps: [setNote('"low"')] })])
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${WIM}, ${STEWARD}); DELETE FROM role_held WHERE person = ${KEEPER} AND role = ${STEWARD}`) // prettier-ignore
		setStock(store, 4)
		workOff(store)
		expect(itemOf(store, 1)['note']).toBeNull()
		expect(runsOf(store)[0]?.error).toContain('may not give')
		expect(routineStates(store, { app, ...by })[0]?.paused).toContain('may not give')
		// With the next release it is asked again; what somebody paused would stay so.
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${WIM}, ${BUILDER})`)
		asWriter(store, () => putBackRelease(store, { app, number: 1, actor: { person: WIM }, now: NOW }))
		expect(routineStates(store, { app, ...by })[0]?.paused).toBeNull()
	})
})

describe('who pressed and may do nothing any more', () => {
	test('has what is left of it given up: nothing is taken for not being so', () => {
		const otherwise = { id: 'e', kind: 'else', lines: [tell] } as const
		const steps = [
			{ id: 'w', kind: 'wait', many: 1, span: 'hours' } as const,
			{ id: 'i', kind: 'if', where: 'stock > 0', lines: [] } as const,
			otherwise
		]
		release(store, [routine({ start: { kind: 'button', table: ITEMS }, steps })])
		const [pressed] = readRelease(store, 1, 1).routines
		if (!pressed) throw new Error('Expected a routine')
		const row = store.ids.toId(ITEMS, 1)
		asWriter(store, () => pressButton(store, { app: 1, release: 1, routine: pressed, row, actor: { person: IMKE }, now: NOW })) // prettier-ignore
		store.db.exec(`INSERT INTO suspended (person, by, at) VALUES (${IMKE}, ${KEEPER}, 0)`)
		workOff(store, NOW + HOUR)
		expect(messagesOf(store)).toEqual([])
		expect(runsOf(store)[0]).toMatchObject({ state: 'given up', error: expect.stringContaining('may do nothing here') })
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
		setStock(store, 4)
		workOff(store)
		workOff(store, NOW + HOUR)
		expect(itemOf(store, 1)['note']).toBe('begun')
		expect(runsOf(store)[0]).toMatchObject({ state: 'given up', error: expect.stringContaining('could not be worked out') }) // prettier-ignore
	})

	test('can be tried again from where it stands, once what it met is mended', () => {
		const app = release(store, [
			routine({ acts: STORES, steps: [setNote('"begun"', 'a'), { id: 's', kind: 'set', column: LEAST, formula: '100 / stock' }] }) // prettier-ignore
		])
		setStock(store, 0)
		workOff(store)
		const [run] = listRuns(store, { app, routine: 'r', ...by })
		expect(run).toMatchObject({ state: 'given up', row: 'Shackle', by: 'Imke' })
		setStock(store, 20)
		asWriter(store, () => tryRunAgain(store, { app, run: run?.id ?? '', ...by }))
		workOff(store)
		expect(itemOf(store, 1)).toMatchObject({ note: 'begun', least: 5 })
		expect(() => tryRunAgain(store, { app, run: run?.id ?? '', ...by })).toThrow('was not given up')
	})

	test('a fault of the program is tried three times, and then waits too', () => {
		release(store, [routine({ acts: STORES, steps: [setNote('"x"')] })])
		setStock(store, 4)
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
		setStock(store, 4)
		workOff(store)
		expect(itemOf(store, 1)['least']).toBe(35)
		expect(runsOf(store).at(-1)).toMatchObject({ state: 'given up', error: expect.stringContaining('never end') })
	})
})

describe('a button', () => {
	const press = (person: number, n = 1, app = 1) =>
		asWriter(store, () => {
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

	test('opens a screen on its row, or on the one that it added; of neither where nothing was added', () => {
		const open = (on: 'this row' | 'the row that was added') => ({
			id: `o${on}`,
			kind: 'open' as const,
			screen: 's',
			on
		})
		const add = {
			id: 'a',
			kind: 'add' as const,
			table: ORDERS,
			lines: [{ id: 'l', kind: 'link' as const, column: OF }]
		}
		const app = release(store, [routine({ start, acts: STORES, steps: [add, open('the row that was added')] })])
		expect(press(IMKE, 1, app).opens).toEqual({ screen: 's', row: store.ids.toId(ORDERS, 1) })
		const own = release(store, [routine({ start, steps: [open('this row')] })])
		expect(press(IMKE, 1, own).opens).toEqual({ screen: 's', row: store.ids.toId(ITEMS, 1) })
		const none = release(store, [routine({ start, steps: [open('the row that was added')] })])
		expect(press(IMKE, 1, none).opens).toEqual({ screen: 's', row: null })
		// Once it has waited nobody is there to be shown anything.
		const late = release(store, [routine({ start, steps: [{ id: 'w', kind: 'wait', many: 1, span: 'hours' }, open('this row')] })]) // prettier-ignore
		expect(press(IMKE, 1, late).opens).toBeUndefined()
		workOff(store, NOW + HOUR)
		expect(runsOf(store).at(-1)).toMatchObject({ state: 'done', error: null })
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

	test('pressed in the Lookout it begins nothing but on a copy, whoever it acts as', () => {
		release(store, [routine({ start, acts: STORES, steps: [setNote('"x"'), tell] })])
		const [pressed] = readRelease(store, 1, 1).routines
		if (!pressed) throw new Error('Expected a routine')
		const actor = { person: IMKE, lookedAtBy: KEEPER }
		const row = store.ids.toId(ITEMS, 1)
		expect(() => pressButton(store, { app: 1, release: 1, routine: pressed, row, actor, now: NOW })).toThrow('This is the Lookout') // prettier-ignore
		expect([runsOf(store), itemOf(store, 1)['note']]).toEqual([[], null])
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

function dueAt(): string {
	return new Date(Number(store.pluck(`SELECT due_at FROM run`))).toISOString()
}
