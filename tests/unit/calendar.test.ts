/** Calendars: what stands on which day for whom, and moving it to another one. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { ScreenInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import { moveCard, tryMoves } from '$lib/server/apps/move-card.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { documentOf, NOW } from '../support/ports.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const [VISITS, NAME, DAY, UNTIL, COMES, DIVER] = [2, 20, 21, 22, 23, 24]
const [CREW, BOSSES] = [10, 11]
const [IMKE, BO, UNA] = [2, 3, 4]

let store: Store

beforeEach(() => {
	const line = (id: string, role: number, parts: object) =>
		accessLine({ id, table: VISITS, role, verbs: ['see'], ...parts })
	store = openScratch({
		now: NOW,
		timeZone: 'Pacific/Auckland',
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: BOSSES, name: 'Bosses', includes: [] }
		],
		lines: [
			// Imke sees the visits of the crew and moves them within the year; of Kay's neither when they are nor how long.
			line('c', CREW, { where: 'diver = "Imke"', verbs: ['see', 'change'], after: 'day < DATE(2027, 1, 1)' }),
			line('k', CREW, { where: 'diver = "Kay"', columns: { kind: 'except', columns: [DAY, UNTIL, COMES] } }),
			line('b', BOSSES, { verbs: ['see', 'change'] })
		],
		tables: [
			{
				...{ id: VISITS, name: 'visits', keepers: [KEEPER], label: NAME },
				checks: [{ formula: 'ISBLANK(until) or until >= day', message: 'It ends before it begins.' }],
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: DAY, name: 'day', type: 'date' },
					{ id: UNTIL, name: 'until', type: 'date' },
					{ id: COMES, name: 'comes', type: 'date and time' },
					{ id: DIVER, name: 'diver', type: 'text' }
				]
			}
		]
	})
	// The clocks of Auckland are 13 hours ahead in December: the evening there is the morning in UTC.
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo'), (4, 0, 0, 'Una', 'una');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${BO}, ${BOSSES});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c22, c23, c24, c24k) VALUES
			(1, 0, 0, 'Heron', 'heron', '2026-12-03', NULL, '2026-12-03T20:30:00.000Z', 'Imke', 'imke'),
			(2, 0, 0, 'Gannet', 'gannet', '2026-11-20', '2026-12-02', NULL, 'Imke', 'imke'),
			(3, 0, 0, 'Dunlin', 'dunlin', '2026-12-05', '2026-12-08', '2026-12-31T10:59:00.000Z', 'Kay', 'kay'),
			(4, 0, 0, 'Petrel', 'petrel', '2026-12-06', '2026-12-01', NULL, 'Ola', 'ola'),
			(5, 0, 0, 'Teal', 'teal', NULL, '2026-12-09', '2026-12-31T11:00:00.000Z', 'Imke', 'imke'),
			(6, 0, 0, 'Wigeon', 'wigeon', '2027-01-10', NULL, NULL, 'Imke', 'imke')`)
})

const line = (parts: object = {}): NonNullable<ScreenInput['lines']>[number] => ({
	...{ id: 'k', kind: 'calendar', table: VISITS, where: '', by: DAY, until: UNTIL, columns: [NAME] },
	...parts
})
const place = (person: number, parts: object = {}) => ({
	...{ app: 1, draft: true, document: documentOf([line(parts)]), screen: 's', line: 'k', actor: { person }, now: NOW }
})
const row = (n: number) => store.ids.toId(VISITS, n)
const move = (person: number, n: number, to: string, parts = {}) =>
	store.db.transaction(() => moveCard(store, { ...place(person, parts), row: row(n), to }))()
const stored = (n: number) => store.db.prepare(`SELECT c21, c22, c23 FROM t2 WHERE n = ?`).raw().get(n)

function open(person: number, when = '2026-12', parts = {}) {
	const [shown] = openScreen(store, { ...place(person, parts), held: { 'when-k': when } }).screen?.lines ?? []
	if (shown?.kind !== 'calendar') throw new Error('Expected a calendar')
	return shown
}

const standing = (...of: Parameters<typeof open>) =>
	open(...of).entries.map(({ row: { cells }, from, to, at }) => [cells[`c${NAME}`], from, to, at])

test('shows what stands on the days of its period, as far as its reader sees that', () => {
	expect(standing(BO)).toEqual([
		['Gannet', '2026-11-20', '2026-12-02', ''],
		['Heron', '2026-12-03', '2026-12-03', ''],
		['Dunlin', '2026-12-05', '2026-12-08', ''],
		// What ends before it begins takes its first day.
		['Petrel', '2026-12-06', '2026-12-06', '']
	])
	// Of Kay's visit she sees the row, and not when it is.
	expect(standing(IMKE).map(([name]) => name)).toEqual(['Gannet', 'Heron'])
	expect(JSON.stringify(open(IMKE))).not.toContain('Dunlin')
	expect(() => open(UNA)).toThrow('not for you to see')
	// A month stands in whole weeks, with what its neighbours have there.
	expect(standing(BO, '2026-12').length).toBe(4)
	expect(standing(BO, '2027-01').map(([name]) => name)).toEqual(['Wigeon'])
	expect(standing(BO, '2026-W49').map(([name]) => name)).toEqual(['Gannet', 'Heron', 'Dunlin', 'Petrel'])
	expect(standing(BO, '2026-W50').map(([name]) => name)).toEqual(['Dunlin'])
})

test('an instant stands on the day that the clocks of the workspace show then', () => {
	const by = { by: COMES, until: null }
	expect(standing(BO, '2026-12', by)).toEqual([
		['Heron', '2026-12-04', '2026-12-04', '09:30'],
		['Dunlin', '2026-12-31', '2026-12-31', '23:59'],
		['Teal', '2027-01-01', '2027-01-01', '00:00']
	])
	expect(standing(BO, '2026-12.timeline', by).map(([name]) => name)).toEqual(['Heron', 'Dunlin'])
	// Moved, it keeps its time of day, over the change of the clocks in April too.
	move(BO, 1, '2027-04-10', by)
	expect(stored(1)).toEqual(['2026-12-03', null, '2027-04-09T21:30:00.000Z'])
})

test('marks, weeks and neighbours go along', () => {
	const shown = open(BO, '2026-12', {
		lines: [{ id: 'm', kind: 'mark', word: 'long', tone: 'look', where: 'until > day + 2' }]
	})
	expect(shown.entries.map((entry) => entry.row.flags)).toEqual([[0], [], [0], []])
	expect(shown.weeks.map(({ number, days }) => [number, days.length])).toEqual([[49, 7], [50, 7], [51, 7], [52, 7], [53, 7]]) // prettier-ignore
	expect([shown.name, shown.before, shown.after, shown.views['a week']]).toEqual(['December 2026', '2026-11', '2027-01', expect.stringMatching(/^2026-W(49|53)$/)]) // prettier-ignore
	expect(shown.weeks[0]?.spans.map(({ at, lane, first, last, begins }) => [at, lane, first, last, begins])).toEqual([[0, 0, 0, 2, false], [1, 0, 3, 3, true], [2, 0, 5, 6, true], [3, 1, 6, 6, true]]) // prettier-ignore
})

describe('moving', () => {
	test('takes as many days as before, through the door, and is tried without a trace', () => {
		const before = store.db.prepare(`SELECT * FROM t2`).all()
		const tried = tryMoves(store, { ...place(IMKE), row: row(2), to: ['2026-12-10', '2027-01-01', 'x'] })
		expect(tried.map(({ refused }) => refused === null)).toEqual([true, false, false])
		expect(store.db.prepare(`SELECT * FROM t2`).all()).toEqual(before)
		expect(move(IMKE, 2, '2026-12-10').entry).toEqual(expect.any(Number))
		expect(stored(2)).toEqual(['2026-12-10', '2026-12-22', null])
		expect(() => move(IMKE, 2, '2027-01-01')).toThrow()
		expect(() => move(IMKE, 2, '2026-02-30')).toThrow('no day')
		expect(stored(2)).toEqual(['2026-12-10', '2026-12-22', null])
	})

	test('of what ends where its reader does not see it is refused, and beyond all dates too', () => {
		const [c] = store.workspace().document.lines
		const blind = { ...c, columns: { kind: 'except', columns: [UNTIL] } } as NonNullable<typeof c>
		saveWorkspace(store, { ...store.workspace().document, lines: [blind] }, { now: NOW, by: null })
		expect(() => move(IMKE, 2, '2026-12-10')).toThrow('do not see its last day')
		expect(stored(2)).toEqual(['2026-11-20', '2026-12-02', null])
		expect(() => move(KEEPER, 2, '9999-12-31')).toThrow('after the last day')
	})

	test('of what is not seen tells nothing of it', () => {
		const tried = (n: string) => tryMoves(store, { ...place(IMKE), row: n, to: ['2026-12-10'] })
		expect(tried(row(4))).toEqual(tried('AAAAAAAAAAAAAAAAAAAAAA'))
		// She sees that row, and neither its day nor that it has one.
		expect(tried(row(3))[0]?.refused).toContain('stands on no day')
		expect(() => move(IMKE, 5, '2026-12-10')).toThrow('stands on no day')
	})
})

test.each([
	['by what is no date', { by: NAME }, 'is no date'],
	['until what is no date', { until: DIVER }, 'is no date'],
	['by a column that is gone', { by: 99 }, 'is gone'],
	['that adds on a screen that is gone', { adds: 'none' }, 'is gone'],
	['that adds on one that takes no day', { adds: 's' }, 'Holds a date as day']
])('a calendar %s is said before a release', (_what, parts, message) => {
	const found = checkApp(documentOf([line(parts)]), store.workspace())
	expect(found.map((each) => each.message).join(' ')).toContain(message)
})
