/** What somebody did today, and taking it back: through the door, under today's rights, where nobody has changed it since. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { CellChange } from '$lib/core/query/change.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { readOwnDay } from '$lib/server/logbook/own-day.ts'
import { takeBack } from '$lib/server/logbook/take-back.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const NOW = Date.parse('2026-11-29T12:00:00Z')
const YESTERDAY = NOW - 86_400_000
const [BUOYS, CODE, DEPTH, NEAR, KIND] = [2, 20, 21, 22, 23]
const [CREW, BOSSES] = [10, 11]
const [IMKE, BO] = [2, 3]

const line = (id: string, role: number, verbs: LineEntry['verbs'], parts: Partial<LineEntry> = {}) =>
	accessLine({ id, table: BUOYS, role, verbs, ...parts })

let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: BOSSES, name: 'Bosses', includes: [] }
		],
		lines: [line('c', CREW, ['see', 'add', 'change']), line('b', BOSSES, ['see', 'add', 'change', 'remove'])],
		tables: [
			{
				...{ id: BUOYS, name: 'buoys', keepers: [KEEPER], label: CODE },
				columns: [
					{ id: CODE, name: 'code', type: 'text' },
					{ id: DEPTH, name: 'depth', type: 'decimal', places: 1 },
					{ id: NEAR, name: 'near', type: 'reference', to: BUOYS, reverseName: 'neighbours' },
					{ id: KIND, name: 'kind', type: 'choice', choices: ['can', 'cone'] }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo');
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21) VALUES (1, 0, 0, 'B1', 'b1', 45), (2, 0, 0, 'B2', 'b2', NULL);
		INSERT INTO role_held (person, role) VALUES (2, ${CREW}), (3, ${BOSSES})`)
})

const id = (n: number) => store.ids.toId(BUOYS, n)
function change(person: number, n: number, cells: CellChange[], now = NOW): void {
	changeRows(store, [{ kind: 'change', table: BUOYS, row: id(n), cells }], { actor: { person }, now, through: 'grid' })
}
const day = (person: number) => readOwnDay(store, { actor: { person }, now: NOW })
const undo = (person: number, entry = day(person)[0]?.entry ?? 0) =>
	store.db.transaction(() => takeBack(store, { entry, actor: { person }, now: NOW }))()
const row = (n: number) => store.db.prepare('SELECT c20, c21, c22, c23 FROM t2 WHERE n = ?').get(n)

test('one’s own changes of today stand there, the latest first, and nobody else’s', () => {
	change(IMKE, 1, [{ column: DEPTH, value: 5 }], YESTERDAY)
	change(BO, 1, [{ column: DEPTH, value: 6 }])
	change(IMKE, 1, [{ column: DEPTH, value: 7.5 }])
	change(IMKE, 2, [{ column: KIND, value: 'cone' }])
	expect(day(IMKE)).toMatchObject([
		{ label: 'B2', table: 'buoys', kind: 'change', state: 'can be taken back', cells: [{ name: 'kind', from: '', to: 'cone' }] }, // prettier-ignore
		{ label: 'B1', cells: [{ name: 'depth', from: '6.0', to: '7.5' }] }
	])
})

describe('taking back', () => {
	test.each([
		['a number', { column: DEPTH, value: 9 }],
		['a choice', { column: KIND, value: 'can' }],
		['text', { column: CODE, value: 'X' }]
	])('%s is as it was', (_what, cell) => {
		const before = row(1)
		change(IMKE, 1, [cell])
		undo(IMKE)
		expect(row(1)).toEqual(before)
		expect(day(IMKE)).toMatchObject([{ state: 'taken back' }])
	})

	test('a reference is as it was', () => {
		change(IMKE, 1, [{ column: NEAR, value: { id: id(2) } }], YESTERDAY)
		change(IMKE, 1, [{ column: NEAR, value: null }])
		undo(IMKE)
		expect(row(1)).toMatchObject({ c22: 2 })
	})

	test('happens once', () => {
		change(IMKE, 1, [{ column: DEPTH, value: 9 }])
		const [{ entry } = { entry: 0 }] = day(IMKE)
		undo(IMKE, entry)
		expect(() => undo(IMKE, entry)).toThrow('This was taken back already.')
	})

	test('leaves what somebody else has changed since', () => {
		change(IMKE, 1, [{ column: DEPTH, value: 9 }])
		change(BO, 1, [{ column: DEPTH, value: 3 }])
		expect(() => undo(IMKE)).toThrow('depth has been changed again since.')
		expect(row(1)).toMatchObject({ c21: 30 })
	})

	test('is of one’s own, and of today', () => {
		change(BO, 1, [{ column: DEPTH, value: 3 }])
		const [{ entry } = { entry: 0 }] = day(BO)
		expect(() => undo(IMKE, entry)).toThrow('This is none of what you did today.')
		change(IMKE, 2, [{ column: DEPTH, value: 3 }], YESTERDAY)
		expect(() => undo(IMKE, entry + 1)).toThrow('This is none of what you did today.')
		expect(() => undo(IMKE, 9_999)).toThrow('This is none of what you did today.')
	})

	test('is not for visitors, who share one row', () => {
		change(IMKE, 1, [{ column: DEPTH, value: 9 }])
		const [{ entry } = { entry: 0 }] = day(IMKE)
		store.db.pragma('foreign_keys = OFF')
		store.db.exec(`INSERT INTO visitor (app, person) VALUES (1, ${IMKE})`)
		expect(day(IMKE)).toEqual([])
		expect(() => undo(IMKE, entry)).toThrow('This is none of what you did today.')
	})

	test('a row that was added goes, where its writer may remove rows', () => {
		const add = (person: number) =>
			changeRows(store, [{ kind: 'add', table: BUOYS, cells: [{ column: CODE, value: 'New' }] }], {
				...{ actor: { person }, now: NOW },
				through: 'form'
			})
		add(BO)
		undo(BO)
		expect(row(3)).toBeUndefined()
		add(IMKE)
		expect(day(IMKE)).toMatchObject([{ kind: 'add', state: 'stays' }])
		expect(() => undo(IMKE)).toThrow('You may not remove this row')
	})

	test('a row that was removed comes back', () => {
		const removing = { kind: 'remove' as const, table: BUOYS, row: id(2) }
		changeRows(store, [removing], { actor: { person: BO }, now: NOW, through: 'grid' })
		expect(day(BO)).toMatchObject([{ kind: 'remove', label: '', cells: [] }])
		undo(BO)
		expect(row(2)).toMatchObject({ c20: 'B2' })
	})

	test('tells nothing of what is not seen any more', () => {
		change(IMKE, 1, [{ column: DEPTH, value: 9 }])
		const [{ entry } = { entry: 0 }] = day(IMKE)
		change(BO, 1, [{ column: DEPTH, value: 3 }])
		const { document } = store.workspace()
		const withLines = (...lines: LineEntry[]) => saveWorkspace(store, { ...document, lines }, { now: NOW, by: null })
		const unseen = line('s', CREW, ['see'], { columns: { kind: 'except', columns: [DEPTH] } })
		withLines(unseen, line('c', CREW, ['change']))
		expect(() => undo(IMKE, entry)).toThrow('You do not see all that you changed here any more')
		withLines(line('s', CREW, ['see', 'change'], { where: 'code = "B2"' }))
		expect(() => undo(IMKE, entry)).toThrow('This row is not there, or not for you to see.')
	})

	test('is judged by today’s rights', () => {
		change(IMKE, 1, [{ column: DEPTH, value: 9 }])
		const [{ entry } = { entry: 0 }] = day(IMKE)
		const { document } = store.workspace()
		saveWorkspace(store, { ...document, lines: [line('c', CREW, ['see'])] }, { now: NOW, by: null })
		expect(day(IMKE)).toMatchObject([{ state: 'stays' }])
		expect(() => undo(IMKE, entry)).toThrow('You may not change')
	})
})
