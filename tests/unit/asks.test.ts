/** Asking somebody: what they are asked, who may answer, and where the routine goes on. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import { countUnread } from '$lib/server/queue/notices.ts'
import { answerAsk, countAsks, listAsks, readAsk } from '$lib/server/routines/answer-ask.ts'
import { cancelRun, tryRunAgain } from '$lib/server/routines/tend-runs.ts'
import { listRuns, readRun } from '$lib/server/routines/read-runs.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import { KEEPER } from '../support/scratch-store.ts'
import {
	asWriter,
	by,
	COST,
	DAY,
	documentOfRoutines,
	HELD_BY,
	HOUR,
	IMKE,
	itemOf,
	ITEMS,
	LEAST,
	messagesOf,
	NOTE,
	NOW,
	openStock,
	release,
	routine,
	runsOf,
	setItem,
	setNote,
	setStock,
	STOCK,
	STORES,
	WIM,
	workOff
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

const ask = {
	id: 'a',
	kind: 'ask' as const,
	to: 'held by',
	columns: [NOTE],
	subject: 'What of {item}?',
	body: '{stock} are left.',
	remind: { many: 2, span: 'days' as const },
	ends: { many: 5, span: 'days' as const }
}
const acts = STORES
const answered = setNote('note & ", noted"', 'y')
const late = { id: 'e', kind: 'else', lines: [setNote('"nobody answered"', 'l')] } as const

const of = (person: number, now = NOW) => listAsks(store, { actor: { person }, now })
const idOf = (person: number, now = NOW) => of(person, now)[0]?.id ?? ''
const answer = (person: number, cells: readonly CellChange[], { id = idOf(WIM), now = NOW } = {}) =>
	asWriter(store, () => answerAsk(store, { id, cells, actor: { person }, now }))
const noteAs = (value: string) => [{ column: NOTE, value, was: null }]

/** Low stock asks whoever holds the item. */
function begin(parts: Partial<Parameters<typeof routine>[0]> = {}): number {
	const app = release(store, [routine({ acts, steps: [{ ...ask, lines: [answered] }, late], ...parts })])
	setStock(store, 4)
	workOff(store)
	return app
}

describe('somebody is asked', () => {
	test('by a message and on their own page, in words as they may see them; nobody else is', () => {
		begin()
		expect(messagesOf(store)).toEqual([{ person: WIM, subject: 'What of Shackle?', body: '4 are left.' }])
		expect(of(WIM)).toMatchObject([{ subject: 'What of Shackle?', label: 'Shackle', endsAt: NOW + 5 * DAY }])
		expect(countAsks(store, { actor: { person: WIM }, now: NOW })).toBe(1)
		const sheet = readAsk(store, { id: idOf(WIM), actor: { person: WIM }, now: NOW })
		expect(sheet.asked.map(({ id }) => id)).toEqual([NOTE])
		expect(sheet.row.cells).toMatchObject({ c20: 'Shackle', c21: 4 })
		for (const person of [IMKE, KEEPER]) {
			expect(of(person)).toEqual([])
			expect(() => readAsk(store, { id: idOf(WIM), actor: { person }, now: NOW })).toThrow('not there')
			expect(() => answer(person, noteAs('mine'))).toThrow('not there')
		}
		expect(runsOf(store)).toMatchObject([{ state: 'waiting' }])
	})

	test('and their answer goes in by the door, once, and wakes the routine', () => {
		begin()
		expect(countUnread(store, WIM)).toBe(1)
		answer(WIM, noteAs('Two boxes come on Monday'))
		expect(countUnread(store, WIM)).toBe(0)
		workOff(store)
		expect(itemOf(store, 1)).toMatchObject({ note: 'Two boxes come on Monday, noted' })
		expect(runsOf(store)).toMatchObject([{ state: 'done' }])
		expect(of(WIM)).toEqual([])
		const through = store.prepare(`SELECT person, through FROM history WHERE kind = 'change' ORDER BY seq`).all()
		expect(through.slice(1)).toEqual([
			{ person: WIM, through: 'answer to Low stock' },
			{ person: null, through: 'routine Low stock as Stores keepers' }
		])
	})

	test('twice by one page, and the second is told that it is over', () => {
		begin()
		const id = idOf(WIM)
		answer(WIM, noteAs('one'))
		expect(() => answer(WIM, noteAs('two'), { id })).toThrow('answered already')
		workOff(store)
		expect(() => answer(WIM, noteAs('three'), { id })).toThrow()
		expect(itemOf(store, 1)).toMatchObject({ note: 'one, noted' })
	})

	test('with nothing filled in, or with what was not asked for, it stays open', () => {
		begin()
		expect(() => answer(WIM, [])).toThrow('Nothing is filled in yet')
		expect(() => answer(WIM, [{ column: LEAST, value: 3 }])).toThrow('not asked for')
		expect(of(WIM)).toHaveLength(1)
		expect(itemOf(store, 1)).toMatchObject({ note: null, least: 25 })
	})

	test('where somebody else was faster both values are told, and it stays open', () => {
		begin()
		setItem(store, 1, [{ column: NOTE, value: 'theirs' }])
		expect(answer(WIM, noteAs('mine')).conflicts).toMatchObject([{ column: NOTE, theirs: 'theirs' }])
		expect(of(WIM)).toHaveLength(1)
	})

	test('and nothing of a whole answer goes in until all of it does', () => {
		begin({ steps: [{ ...ask, columns: [NOTE, STOCK], lines: [answered] }] })
		setItem(store, 1, [{ column: STOCK, value: 5 }])
		const whole = (was: number) => [...noteAs('counted'), { column: STOCK, value: 9, was }]
		expect(answer(WIM, whole(4)).conflicts).toMatchObject([{ column: STOCK, theirs: 5 }])
		workOff(store)
		expect(itemOf(store, 1)).toMatchObject({ note: null, stock: 5 })
		expect(answer(WIM, whole(5)).conflicts).toEqual([])
		workOff(store)
		expect(itemOf(store, 1)).toMatchObject({ note: 'counted, noted', stock: 9 })
	})

	test('and what was filled in elsewhere is an answer too', () => {
		begin()
		setItem(store, 1, [{ column: NOTE, value: 'by hand' }])
		workOff(store)
		expect(itemOf(store, 1)).toMatchObject({ note: 'by hand, noted' })
		expect(of(WIM)).toEqual([])
	})

	test('where it was all there when it was asked, only an answer counts', () => {
		setItem(store, 1, [{ column: NOTE, value: 'old' }])
		begin()
		setItem(store, 1, [{ column: LEAST, value: 24 }])
		workOff(store)
		expect(of(WIM)).toHaveLength(1)
		answer(WIM, [])
		workOff(store)
		expect(itemOf(store, 1)).toMatchObject({ note: 'old, noted' })
	})
})

describe('time passes', () => {
	test('they are reminded every so often, until the end; then "Otherwise" is done and they can answer no more', () => {
		begin()
		const id = idOf(WIM)
		for (const days of [1, 2, 3, 4, 4.5]) workOff(store, NOW + days * DAY)
		expect(messagesOf(store).map(({ subject }) => subject)).toEqual(['What of Shackle?', 'Reminder: What of Shackle?', 'Reminder: What of Shackle?']) // prettier-ignore
		workOff(store, NOW + 5 * DAY)
		expect(itemOf(store, 1)).toMatchObject({ note: 'nobody answered' })
		expect(messagesOf(store)).toHaveLength(3)
		expect(() => answer(WIM, noteAs('late'), { id, now: NOW + 5 * DAY })).toThrow('not asked any more')
	})

	test('without an end it waits on, and after a stop of a month reminds once', () => {
		begin({ steps: [{ ...ask, ends: null, lines: [answered] }] })
		workOff(store, NOW + 30 * DAY)
		expect(messagesOf(store)).toHaveLength(2)
		expect(of(WIM, NOW + 30 * DAY)).toMatchObject([{ endsAt: null }])
	})

	test('a row that is taken away ends it', () => {
		begin()
		const change = { kind: 'remove' as const, table: ITEMS, row: store.ids.toId(ITEMS, 1) }
		asWriter(store, () => changeRows(store, [change], { ...by, through: 'grid' }))
		workOff(store)
		expect(of(WIM)).toEqual([])
		expect(runsOf(store)).toMatchObject([{ state: 'done' }])
	})

	test('cancelled, nothing is asked any more', () => {
		const app = begin()
		const run = listRuns(store, { app, routine: 'r', ...by })[0]?.id ?? ''
		expect(readRun(store, { app, id: run, ...by })?.steps).toMatchObject([{ cameTo: 'asked', person: 'Wim' }])
		const id = idOf(WIM)
		asWriter(store, () => cancelRun(store, { app, run, ...by }))
		expect(of(WIM)).toEqual([])
		expect(() => answer(WIM, noteAs('late'), { id })).toThrow('not there')
	})
})

describe('nobody can answer', () => {
	test('where nobody is named, or whoever is may not change it, the run is given up with the reason', () => {
		begin({ steps: [{ ...ask, to: '"nobody@varrow.example"' }] })
		expect(runsOf(store)).toMatchObject([{ state: 'given up', error: 'Nobody is named whom it could ask.' }])
		setItem(store, 2, [{ column: HELD_BY, value: { id: store.ids.toId(1, IMKE) } }])
		release(store, [routine({ id: 'q', acts, steps: [ask] })])
		setStock(store, 3, 2)
		workOff(store)
		expect(runsOf(store).at(-1)?.error).toMatch(/^Whoever it would ask may not change note of this row/)
		expect(messagesOf(store)).toEqual([])
	})

	test('where they leave, whoever stands there now is asked instead; until then it waits with its maker', () => {
		const app = begin()
		store.db.exec(`INSERT INTO suspended (person, at, by) VALUES (${WIM}, ${NOW}, ${KEEPER})`)
		workOff(store, NOW + DAY)
		expect(runsOf(store)).toMatchObject([{ state: 'given up' }])
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${IMKE}, ${STORES})`)
		setItem(store, 1, [{ column: HELD_BY, value: { id: store.ids.toId(1, IMKE) } }])
		const run = listRuns(store, { app, routine: 'r', ...by })[0]?.id ?? ''
		asWriter(store, () => tryRunAgain(store, { app, run, actor: by.actor, now: NOW + DAY + HOUR }))
		workOff(store, NOW + DAY + HOUR)
		expect(of(IMKE)).toHaveLength(1)
		expect(of(WIM)).toEqual([])
	})

	test('somebody who does not see the row any more is not asked about it', () => {
		begin()
		const id = idOf(WIM)
		store.db.exec(`DELETE FROM role_held WHERE person = ${WIM}`)
		store.touched.add('access')
		expect(of(WIM)).toEqual([])
		expect(() => readAsk(store, { id, actor: { person: WIM }, now: NOW })).toThrow('not there')
	})
})

test('a release asks for its table’s keeper, also where somebody presses', () => {
	const JORY = WIM + 1
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${JORY}, 0, 0, 'Jory', 'jory');
		INSERT INTO role_held (person, role) VALUES (${JORY}, ${BUILDER}), (${JORY}, ${STORES})`)
	const document = documentOfRoutines([routine({ start: { kind: 'button', table: ITEMS }, steps: [ask] })])
	const actor = { person: JORY }
	expect(() =>
		asWriter(store, () => {
			const app = addAppFrom(store, { document, actor, now: NOW })
			releaseApp(store, { app, note: '', actor, now: NOW })
		})
	).toThrow('somebody else keeps')
})

test('the check says what an ask lacks', () => {
	const wrong = (parts: object, ...after: object[]) => {
		const document = documentOfRoutines([routine({ acts, steps: [{ ...ask, ...parts }, ...after] as never })])
		return checkApp(document, store.workspace()).map(({ message }) => message)
	}
	expect(wrong({ columns: [] })).toEqual([expect.stringContaining('asks for nothing yet')])
	expect(wrong({ columns: [999] })).toEqual([expect.stringContaining('is gone')])
	expect(wrong({ to: 'stock' })).toEqual([expect.stringContaining('names no person')])
	expect(wrong({ subject: ' ' })).toEqual([expect.stringContaining('no subject')])
	expect(wrong({ ends: null }, late)).toEqual([expect.stringContaining('waits without end')])
	expect(wrong({}, late)).toEqual([])
	expect(wrong({ columns: [COST] })).toEqual([])
})
