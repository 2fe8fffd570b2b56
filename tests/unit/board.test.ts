/** Boards: what stands in which lane for whom, what a move would be refused for, and that trying one changes nothing. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { ScreenInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import { buildWorkspace } from '$lib/core/workspace/catalogue.ts'
import { moveCard, tryMoves } from '$lib/server/apps/move-card.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { documentOf, NOW } from '../support/ports.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const [JOBS, NAME, STATE, HOURS, DIVER] = [2, 20, 21, 22, 23]
const [CREW, BOSSES] = [10, 11]
const [IMKE, BO, UNA] = [2, 3, 4]
const STATES = ['Raised', 'Planned', 'Done']

let store: Store

beforeEach(() => {
	const line = (id: string, role: number, parts: object) =>
		accessLine({ id, table: JOBS, role, verbs: ['see'], ...parts })
	store = openScratch({
		now: NOW,
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: BOSSES, name: 'Bosses', includes: [] }
		],
		lines: [
			// Imke sees the jobs of the crew, moves them, and never to Done; of Kay's not even how far they are.
			line('c', CREW, { where: 'diver = "Imke"', verbs: ['see', 'change'], after: 'state <> "Done"' }),
			line('k', CREW, { where: 'diver = "Kay"', columns: { kind: 'except', columns: [STATE] } }),
			line('b', BOSSES, { verbs: ['see', 'change'] })
		],
		tables: [
			{
				...{ id: JOBS, name: 'jobs', keepers: [KEEPER], label: NAME },
				checks: [{ formula: 'state <> "Planned" or hours > 0', message: 'Say how many hours it takes first.' }],
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: STATE, name: 'state', type: 'choice', choices: STATES },
					{ id: HOURS, name: 'hours', type: 'whole number' },
					{ id: DIVER, name: 'diver', type: 'text' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo'), (4, 0, 0, 'Una', 'una');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${BO}, ${BOSSES});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c22, c23, c23k) VALUES
			(1, 0, 0, 'Riser', 'riser', 1, 3, 'Imke', 'imke'), (2, 0, 0, 'Shackle', 'shackle', 1, 0, 'Imke', 'imke'),
			(3, 0, 0, 'Swivel', 'swivel', 2, 4, 'Imke', 'imke'), (4, 0, 0, 'Anode', 'anode', NULL, 1, 'Imke', 'imke'),
			(5, 0, 0, 'Thimble', 'thimble', 3, 2, 'Kay', 'kay'), (6, 0, 0, 'Sinker', 'sinker', 2, 8, 'Ola', 'ola')`)
})

const lines: ScreenInput['lines'] = [
	{
		...{ id: 'b', kind: 'board', table: JOBS, where: '', by: STATE, columns: [NAME, HOURS], sums: HOURS },
		...{ sort: [{ column: NAME, descending: false }] },
		lines: [{ id: 'm', kind: 'mark', word: 'long', tone: 'look', where: 'hours > 3' }]
	}
]
const place = (person: number) => ({
	...{ app: 1, draft: true, document: documentOf(lines), screen: 's', line: 'b', actor: { person }, now: NOW }
})
const row = (n: number) => store.ids.toId(JOBS, n)
/** As the writer does it: a refusal undoes what it refuses. */
const move = (person: number, n: number, to: string) =>
	store.db.transaction(() => moveCard(store, { ...place(person), row: row(n), to }))()
const stateOf = (n: number) => store.db.prepare(`SELECT c21 FROM t2 WHERE n = ?`).pluck().get(n)

function lanes(person: number) {
	const [line] = openScreen(store, place(person)).screen?.lines ?? []
	if (line?.kind !== 'board') throw new Error('Expected a board')
	return line.lanes.map(({ value, count, sum, rows }) => [
		value,
		count,
		sum,
		rows.map(({ cells }) => cells[`c${NAME}`])
	])
}

test('stand in the lanes in which they are, as far as their reader sees that, added up', () => {
	expect(lanes(BO)).toEqual([
		['Raised', 2, '3', ['Riser', 'Shackle']],
		['Planned', 2, '12', ['Sinker', 'Swivel']],
		['Done', 1, '2', ['Thimble']],
		['', 1, '1', ['Anode']]
	])
	// A job whose state is kept back is in no lane, nor in any count.
	expect(lanes(IMKE)).toEqual([
		['Raised', 2, '3', ['Riser', 'Shackle']],
		['Planned', 1, '4', ['Swivel']],
		['Done', 0, '', []],
		['', 1, '1', ['Anode']]
	])
	expect(() => lanes(UNA)).toThrow('not for you to see')
})

describe('moving', () => {
	test('is tried with all that would be asked of it, and changes nothing', () => {
		const before = store.db.prepare(`SELECT * FROM t2`).all()
		const history = store.db.prepare(`SELECT count(*) FROM history`).pluck().get()
		const touched = [...store.touched]
		expect(tryMoves(store, { ...place(IMKE), row: row(2) })).toEqual([
			{ to: 'Raised', refused: null },
			{ to: 'Planned', refused: 'Say how many hours it takes first.' },
			{ to: 'Done', refused: expect.stringContaining('not') }
		])
		expect(tryMoves(store, { ...place(BO), row: row(1) }).map(({ refused }) => refused)).toEqual([null, null, null])
		expect(store.db.prepare(`SELECT * FROM t2`).all()).toEqual(before)
		expect(store.db.prepare(`SELECT count(*) FROM history`).pluck().get()).toBe(history)
		expect([...store.touched]).toEqual(touched)
	})

	test('goes through the door, is noted, and can be taken back', () => {
		expect(move(IMKE, 1, 'Planned').entry).toEqual(expect.any(Number))
		expect(stateOf(1)).toBe(2)
		expect(() => move(IMKE, 1, 'Done')).toThrow()
		expect(() => move(IMKE, 6, 'Raised')).toThrow('not there')
		expect(() => move(BO, 1, 'Lost')).toThrow()
		expect(stateOf(1)).toBe(2)
		move(BO, 1, '')
		expect(stateOf(1)).toBeNull()
	})

	test('of a row that is not seen tells nothing of it', () => {
		const tried = (id: string) => tryMoves(store, { ...place(IMKE), row: id }).map(({ refused }) => refused)
		expect(tried(row(6))).toEqual(tried('AAAAAAAAAAAAAAAAAAAAAA'))
	})
})

test.each([
	['by what is no choice', { by: NAME }, 'are those of a choice'],
	['by a column that is gone', { by: 99 }, 'are those of a choice'],
	['adding up what is no number', { sums: NAME }, 'no column of numbers']
])('a board %s is said before a release', (_what, parts, message) => {
	const [line] = lines
	const found = checkApp(documentOf([{ ...line, ...parts } as never]), store.workspace())
	expect(found.map((each) => each.message).join(' ')).toContain(message)
})

test('a choice of too many values makes no board', () => {
	const { document } = store.workspace()
	const choices = Array.from({ length: 13 }, (_each, i) => `State ${i}`)
	const tables = document.tables.map((table) => ({
		...table,
		columns: table.columns.map((column) => (column.id === STATE ? { ...column, choices } : column))
	}))
	const found = checkApp(documentOf(lines), buildWorkspace({ ...document, tables }))
	expect(found.map(({ message }) => message).join(' ')).toContain('has 13 choices, and a board takes at most 12 lanes')
})
