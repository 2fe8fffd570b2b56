/** Maps: what lies where for whom, what lies nowhere, and what is wrong with them before a release. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { ScreenInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import type { StopTo } from '$lib/core/map/stops.ts'
import { moveStop } from '$lib/server/apps/move-stop.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { documentOf, NOW } from '../support/ports.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const [BUOYS, NAME, AT, KIND, DIVER, MANY, CALL] = [2, 20, 21, 22, 23, 24, 25]
const [CREW, BOSSES, HANDS] = [10, 11, 12]
const [IMKE, BO, UNA, KIT] = [2, 3, 4, 5]

let store: Store

beforeEach(() => {
	const line = (id: string, role: number, parts: object) =>
		accessLine({ id, table: BUOYS, role, verbs: ['see'], ...parts })
	store = openScratch({
		now: NOW,
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: BOSSES, name: 'Bosses', includes: [] },
			{ id: HANDS, name: 'Hands', includes: [] }
		],
		lines: [
			// Of Kay's buoys the crew sees that they are there, and not where.
			line('c', CREW, { where: 'diver = "Imke"', verbs: ['see', 'change'] }),
			line('k', CREW, { where: 'diver = "Kay"', columns: { kind: 'except', columns: [AT] } }),
			line('h', HANDS, { where: 'diver = "Imke"', verbs: ['see', 'change'] }),
			line('o', HANDS, {
				where: 'diver = "Ola"',
				verbs: ['see', 'change'],
				columns: { kind: 'except', columns: [CALL] }
			}),
			line('b', BOSSES, { verbs: ['see', 'change'] })
		],
		tables: [
			{
				...{ id: BUOYS, name: 'buoys', keepers: [KEEPER], label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: AT, name: 'at', type: 'place' },
					{ id: KIND, name: 'kind', type: 'choice', choices: ['Can', 'Cone'] },
					{ id: DIVER, name: 'diver', type: 'text' },
					{ id: MANY, name: 'many', type: 'choice', choices: ['1', '2', '3', '4', '5', '6', '7'] },
					{ id: CALL, name: 'call', type: 'whole number' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo'), (4, 0, 0, 'Una', 'una'), (5, 0, 0, 'Kit', 'kit');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${BO}, ${BOSSES}), (${KIT}, ${HANDS});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c21k, c22, c23, c23k) VALUES
			(1, 0, 0, 'Heron', 'heron', '50.3121, -4.1102', '', 1, 'Imke', 'imke'),
			(2, 0, 0, 'Dunlin', 'dunlin', '50.4, -4.2', '', 2, 'Kay', 'kay'),
			(3, 0, 0, 'Petrel', 'petrel', '-33.5, 151', '', NULL, 'Ola', 'ola'),
			(4, 0, 0, 'Teal', 'teal', NULL, NULL, 1, 'Imke', 'imke')`)
})

const line = (parts: object = {}): NonNullable<ScreenInput['lines']>[number] => ({
	...{ id: 'm', kind: 'map', table: BUOYS, where: '', at: AT, by: KIND, columns: [NAME] },
	...parts
})

function open(person: number, parts = {}) {
	const place = { app: 1, draft: true, document: documentOf([line(parts)]), screen: 's', actor: { person }, now: NOW }
	const [shown] = openScreen(store, place).screen?.lines ?? []
	if (shown?.kind !== 'map') throw new Error('Expected a map')
	return shown
}

test('shows where rows lie, as far as their reader sees that', () => {
	const lying = (person: number) =>
		open(person).points.map(({ row: { cells }, at, sign }) => [cells[`c${NAME}`], ...at, sign])
	expect(lying(BO)).toEqual([
		['Heron', 50.3121, -4.1102, 0],
		['Dunlin', 50.4, -4.2, 1],
		['Petrel', -33.5, 151, null]
	])
	expect(lying(IMKE)).toEqual([['Heron', 50.3121, -4.1102, 0]])
	// A place that is kept back is none for who looks; a row that is not seen is not counted either.
	expect([open(BO).nowhere, open(IMKE).nowhere]).toEqual([1, 2])
	expect(open(BO).signs).toEqual(['Can', 'Cone'])
	expect(open(BO, { where: 'kind = "Cone"' }).points.length).toBe(1)
	expect(() => open(UNA)).toThrow('not for you to see')
})

test('beyond five thousand places it says that there are more', () => {
	store.db.exec(`
		WITH RECURSIVE some(i) AS (SELECT 5 UNION ALL SELECT i + 1 FROM some WHERE i < 5300)
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c21k) SELECT i, 0, 0, 'B' || i, 'b' || i, '50.' || (i % 900 + 100) || ', -4.1', '' FROM some`)
	const shown = open(BO)
	expect([shown.points.length, shown.isCut]).toEqual([5_000, true])
	expect(new Set(shown.points.map(({ row }) => row.id)).size).toBe(5_000)
})

test.each([
	['by what holds no places', { at: NAME }, 'holds no places'],
	['by a column that is gone', { at: 99 }, 'holds no places'],
	['told apart by what is no choice', { by: NAME }, 'told apart by a choice'],
	['told apart by too many', { by: MANY }, 'only 6 signs']
])('a map %s is said before a release', (_what, parts, message) => {
	const found = checkApp(documentOf([line(parts)]), store.workspace())
	expect(found.map((each) => each.message).join(' ')).toContain(message)
})

describe('called at one after another', () => {
	const ordered = { order: CALL }
	const row = (n: number) => store.ids.toId(BUOYS, n)
	const calls = () => store.db.prepare(`SELECT c25 FROM t2 ORDER BY n`).pluck().all()
	const number = (...numbers: readonly (number | null)[]) => {
		for (const [i, each] of numbers.entries()) store.db.prepare(`UPDATE t2 SET c25 = ? WHERE n = ?`).run(each, i + 1)
	}
	/** As the writer does it: a refusal undoes what it refuses. */
	const move = (person: number, n: number, to: StopTo, parts: object = ordered) => {
		const place = { app: 1, draft: true, document: documentOf([line(parts)]), screen: 's', line: 'm' }
		return store.db.transaction(() => moveStop(store, { ...place, actor: { person }, now: NOW, row: row(n), to }))()
	}
	const stops = (person: number) =>
		open(person, ordered).points.map(({ row: { cells }, stop }) => [cells[`c${NAME}`], stop])

	beforeEach(() => {
		number(2, 1, null, null)
	})

	test('each says its turn, to who sees it', () => {
		expect(stops(BO)).toEqual([['Heron', 2], ['Dunlin', 1], ['Petrel', null]]) // prettier-ignore
		expect(stops(IMKE)).toEqual([['Heron', 2]])
		expect(open(BO, ordered).order).toEqual({ name: 'call', canMove: true })
		expect(open(BO).order).toBeNull()
		expect(open(BO).points.map(({ stop }) => stop)).toEqual([null, null, null])
	})

	test('a move numbers anew what it moves past, through the door', () => {
		move(BO, 3, { before: row(1) })
		expect(calls()).toEqual([3, 1, 2, null])
		move(BO, 2, 'last')
		expect(calls()).toEqual([2, 3, 1, null])
		move(BO, 3, 'out')
		expect(calls()).toEqual([1, 2, null, null])
		const through = store.db.prepare(`SELECT DISTINCT through FROM history`).pluck().all()
		expect(through).toEqual(['map'])
	})

	test('what its mover does not see keeps its number, and is no row to move before', () => {
		move(IMKE, 1, 'last')
		expect(calls()).toEqual([1, 1, null, null])
		expect(() => move(IMKE, 1, { before: row(2) })).toThrow('Somebody changed the order')
		expect(() => move(IMKE, 2, 'last')).toThrow('not there, or its turn is not for you to see')
		expect(() => move(IMKE, 4, 'last')).toThrow('not there, or its turn is not for you to see')
		expect(calls()).toEqual([1, 1, null, null])
	})

	test('one whose turn is kept back is neither called at nor left out, and nothing is written over it', () => {
		number(1, null, 2, null)
		expect(stops(KIT)).toEqual([['Heron', 1], ['Petrel', undefined]]) // prettier-ignore
		expect(() => move(KIT, 3, 'last')).toThrow('its turn is not for you to see')
		expect(() => move(KIT, 1, { before: row(3) })).toThrow('Somebody changed the order')
		expect(calls()).toEqual([1, null, 2, null])
	})

	test('of several that would be numbered anew all are, or none', () => {
		store.db.exec(`UPDATE t2 SET c23 = 'Imke', c23k = 'imke' WHERE n = 3`)
		number(1, null, 2, null)
		// Heron has been given to Kay since: the crew sees it without its place, and moves it no more.
		store.db.exec(`UPDATE t2 SET c23 = 'Kay', c23k = 'kay' WHERE n = 1`)
		expect(() => move(IMKE, 3, { before: row(1) })).toThrow()
		expect(calls()).toEqual([1, null, 2, null])
	})

	test('a map without an order, and a column that holds no numbers, are refused', () => {
		expect(() => move(BO, 1, 'last', {})).toThrow('no order any more')
		const found = checkApp(documentOf([line({ order: NAME })]), store.workspace())
		expect(found.map(({ message }) => message)).toContain(
			'Places are called at by a whole number. Choose such a column.'
		)
	})
})
