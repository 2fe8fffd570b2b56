/** What nobody may do, whatever lines say, and what is kept of a row beside what was sent. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { CellInput, Change } from '$lib/core/query/change.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import type { Store } from '$lib/server/store/store.ts'
import { refusal } from '../support/refusal.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [BERTHS, NAME, PORT, NO, DEPTH, DRAUGHT, FREE, DEEP, SPARE, PLAN, SIGN] = [
	3, 30, 31, 32, 33, 34, 35, 36, 37, 38, 39
]
const [VISITS, SAID, BERTH, NEXT] = [4, 40, 41, 42]

let store: Store

beforeEach(() => {
	const keepers = [KEEPER]
	store = openScratch({
		now: NOW,
		tables: [
			{
				...{ id: BERTHS, name: 'berths', keepers, label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: PORT, name: 'port', type: 'text' },
					{ id: NO, name: 'no', type: 'whole number', unique: true, uniqueWithin: PORT },
					{ id: DEPTH, name: 'depth', type: 'whole number' },
					{ id: DRAUGHT, name: 'draught', type: 'whole number' },
					{ id: FREE, name: 'free', type: 'yes/no' },
					{ id: DEEP, name: 'deep', type: 'computed', formula: 'depth > 10' },
					{ id: SPARE, name: 'spare', type: 'computed', formula: 'depth - draught' },
					{ id: SIGN, name: 'sign', type: 'computed', formula: 'IF(free; "free"; "")' },
					{ id: PLAN, name: 'plan', type: 'ink' }
				],
				checks: [
					{ formula: 'draught < depth', message: 'It would run aground.' },
					{ formula: 'no <> 13', message: 'Nobody moors at 13.' }
				]
			},
			{
				...{ id: VISITS, name: 'visits', keepers, label: SAID },
				columns: [
					{ id: SAID, name: 'said', type: 'text' },
					{ id: BERTH, name: 'berth', type: 'reference', to: BERTHS, reverseName: 'visits' },
					{ id: NEXT, name: 'next', type: 'reference', to: BERTHS, reverseName: 'awaited' }
				]
			}
		]
	})
})

/** As the writer does: a refusal leaves nothing. */
const change = (...changes: Change[]) =>
	store.db.transaction(() => changeRows(store, changes, { actor: { person: KEEPER }, now: NOW, through: 'grid' }))()
const cellsOf = (values: Record<number, CellInput>) =>
	Object.entries(values).map(([column, value]) => ({ column: Number(column), value }))
const add = (values: Record<number, CellInput>, table = BERTHS) =>
	change({ kind: 'add', table, cells: cellsOf(values) })[0]?.row ?? ''
const set = (row: string, values: Record<number, CellInput>, table = BERTHS) =>
	change({ kind: 'change', table, row, cells: cellsOf(values) })
const stands = (row: string, column: number) =>
	store.prepare(`SELECT c${column} FROM t${BERTHS} WHERE n = ?`).pluck().get(store.ids.fromId(BERTHS, row))

describe('a check', () => {
	test('refuses a row for which it does not hold, in its own words', () => {
		expect(refusal(() => add({ [DEPTH]: 3, [DRAUGHT]: 4 }))).toMatchObject({ message: 'It would run aground.' })
		expect(refusal(() => add({ [NO]: 13 }))).toMatchObject({ message: 'Nobody moors at 13.' })
		expect(add({ [DEPTH]: 4, [DRAUGHT]: 3 })).not.toBe('')
	})

	test('says nothing while one of the columns that it compares is blank', () => {
		expect(add({ [DRAUGHT]: 4 })).not.toBe('')
		expect(add({ [DEPTH]: 4 })).not.toBe('')
	})

	test('is asked again with every change, of what it reads or not', () => {
		const row = add({ [DRAUGHT]: 4 })
		expect(refusal(() => set(row, { [DEPTH]: 3 }))).toMatchObject({ message: 'It would run aground.' })
		expect(stands(row, DEPTH)).toBeNull()
	})
})

describe('no value twice within another column', () => {
	test('counts text as the same however it is written', () => {
		add({ [PORT]: 'Ness', [NO]: 1 })
		add({ [PORT]: 'Varrow', [NO]: 1 })
		expect(refusal(() => add({ [PORT]: 'NESS', [NO]: 1 })).message).toContain('another row has this value already')
	})

	test('takes rows where that text is blank as one group', () => {
		add({ [NO]: 1 })
		expect(refusal(() => add({ [NO]: 1 })).message).toContain('another row has this value already')
		add({ [PORT]: 'null', [NO]: 2 })
		expect(add({ [NO]: 2 })).not.toBe('')
	})
})

describe('a row that somebody decides on', () => {
	function putCase(row: string, state: string, children: readonly number[] = []): void {
		const signoff = JSON.stringify({ children: children.map((column) => ({ table: VISITS, column })) })
		store.db.exec(`INSERT OR IGNORE INTO app (id, name, colour, made_at, made_by) VALUES (1, 'Quay', 'sea', 0, 1)`)
		store.db
			.prepare(
				`INSERT INTO signoff_case (app, signoff, table_id, row_n, asked_by, asked_at, waits_on, state) VALUES (1, ?, ?, ?, 1, 0, 1, ?)`
			)
			.run(signoff, BERTHS, store.ids.fromId(BERTHS, row), state)
	}

	test.each([
		['waiting', 'Closed to changes: this row is waiting on a decision.'],
		['approved', 'Closed to changes: this row has been approved.'],
		['declined', 'Closed to changes: this row has been declined.']
	])('is closed: %s', (state, message) => {
		const row = add({ [NAME]: 'A1' })
		putCase(row, state)
		expect(refusal(() => set(row, { [NAME]: 'A2' }))).toMatchObject({ message })
		expect(refusal(() => change({ kind: 'remove', table: BERTHS, row }))).toMatchObject({ message })
		expect(stands(row, NAME)).toBe('A1')
	})

	test('is open again once the asking was withdrawn, and no other row is closed', () => {
		const [row, other] = [add({ [NAME]: 'A1' }), add({ [NAME]: 'B1' })]
		putCase(row, 'withdrawn')
		putCase(other, 'waiting')
		set(row, { [NAME]: 'A2' })
		expect(stands(row, NAME)).toBe('A2')
	})

	test('closes the rows that belong to it by a column that it names, and those alone', () => {
		const berth = add({ [NAME]: 'A1' })
		const [named, other, free] = [
			add({ [SAID]: 'one', [BERTH]: { id: berth } }, VISITS),
			add({ [SAID]: 'two', [NEXT]: { id: berth } }, VISITS),
			add({ [SAID]: 'three' }, VISITS)
		]
		putCase(berth, 'waiting', [BERTH])
		const message = 'Closed to changes: the row it belongs to is waiting on a decision.'
		expect(refusal(() => set(named, { [SAID]: 'x' }, VISITS))).toMatchObject({ message })
		expect(refusal(() => set(free, { [BERTH]: { id: berth } }, VISITS))).toMatchObject({ message })
		expect(refusal(() => add({ [BERTH]: { id: berth } }, VISITS))).toMatchObject({ message })
		expect(set(other, { [SAID]: 'x' }, VISITS)).toHaveLength(1)
	})
})

describe('what is kept of a computed column', () => {
	test('is blank where it comes to no text', () => {
		const row = add({ [FREE]: true })
		expect(stands(row, SIGN)).toBe('free')
		set(row, { [FREE]: false })
		expect(stands(row, SIGN)).toBeNull()
	})

	test('follows from the whole row, whichever part of it was changed', () => {
		const row = add({ [DEPTH]: 12, [DRAUGHT]: 4 })
		expect([stands(row, DEEP), stands(row, SPARE)]).toEqual([1, 8])
		set(row, { [DRAUGHT]: 5 })
		expect([stands(row, DEEP), stands(row, SPARE)]).toEqual([1, 7])
		set(row, { [DEPTH]: 9 })
		expect([stands(row, DEEP), stands(row, SPARE)]).toEqual([0, 4])
	})
})

test('a drawing that was drawn anew meanwhile is another value', () => {
	const row = add({ [NAME]: 'A1' })
	const n = store.ids.fromId(BERTHS, row)
	const drawn = (sha: string) => ({ name: 'plan.png', type: 'image/png', size: 12, sha: sha.repeat(64) })
	store.prepare(`UPDATE t${BERTHS} SET c${PLAN} = ? WHERE n = ?`).run(JSON.stringify(drawn('a')), n)
	const clear = (sha: string) => {
		const cells = [{ column: PLAN, value: null, was: { file: drawn(sha) } }]
		return change({ kind: 'change', table: BERTHS, row, cells })[0]?.conflicts.map(({ column }) => column)
	}
	expect(clear('b')).toEqual([PLAN])
	expect(clear('a')).toEqual([])
})

describe('what cannot stand in a column', () => {
	test('is refused where the column takes no typed value', () => {
		expect(refusal(() => add({ [PLAN]: 'a line' })).message).toContain('plan: A drawing is drawn')
		expect(refusal(() => add({ [NAME]: { file: 'x' } }))).toMatchObject({ code: 'invalid' })
		expect(refusal(() => add({ [PLAN]: { file: 'x' } })).message).toContain('no longer waiting here')
	})

	test('is blank where it is nothing but spaces, in a column of any type', () => {
		const row = add({ [FREE]: ' ', [DEPTH]: ' ', [NAME]: ' ' })
		expect([stands(row, FREE), stands(row, DEPTH), stands(row, NAME)]).toEqual([null, null, null])
	})
})
