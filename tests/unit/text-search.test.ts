/**
 * A text that is looked for in a large table: through an index of its pieces it finds what looking at every row finds, for
 * each reader, after any change; and which of the two is done is chosen by how many rows could fit.
 */
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Filter } from '$lib/core/query/filter.ts'
import { matchOf } from '$lib/core/query/text-search.ts'
import { getTable } from '$lib/core/model/table.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readAnchors } from '$lib/server/rows/read-anchors.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { fewCandidates } from '$lib/server/rows/text-candidates.ts'
import type { Store } from '$lib/server/store/store.ts'
import { convertColumn } from '$lib/server/structure/change-columns.ts'
import { startIndexing } from '$lib/server/host/indexing.ts'
import { growTextIndex, isTextIndexed } from '$lib/server/derived/text-index.ts'
import { addColumn } from '$lib/server/structure/tables.ts'
import { randomFrom } from '../../demo/random.ts'
import { seeLine } from '../support/see-line.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const by = { actor: { person: KEEPER }, now: NOW, through: 'grid' as const }
const [BERTHS, CALLS, CLERK, CORRIE] = [2, 3, 10, 2]
const [BOAT, NOTE, BERTH, LENGTH, STATE, CREW] = [30, 31, 32, 33, 34, 35]
const ROWS = 51_000
const WORDS = ['Dunlin', 'Knot', 'Petrel', 'ÖRN', 'Straße', 'say "so"', 'Ruff']
let store: Store

beforeAll(() => {
	store = openScratch({
		now: NOW,
		roles: [{ id: CLERK, name: 'Clerks', includes: [] }],
		lines: [seeLine(CALLS)('a', CLERK, 'length < 9', [CREW]), seeLine(BERTHS)('b', CLERK, 'name <> "Brig"')],
		tables: [
			{ id: BERTHS, name: 'berths', keepers: [KEEPER], label: 20, columns: [{ id: 20, name: 'name', type: 'text' }] },
			{
				id: CALLS,
				name: 'calls',
				keepers: [KEEPER],
				label: BOAT,
				columns: [
					{ id: BOAT, name: 'boat', type: 'text' },
					{ id: NOTE, name: 'note', type: 'long text' },
					{ id: BERTH, name: 'berth', type: 'reference', to: BERTHS },
					{ id: LENGTH, name: 'length', type: 'whole number' },
					{ id: STATE, name: 'state', type: 'choice', choices: ['Expected', 'Moored'] },
					{ id: CREW, name: 'crew', type: 'text' }
				]
			}
		]
	})
	const random = randomFrom(3)
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${CORRIE}, 0, 0, 'Corrie', 'corrie');
		INSERT INTO role_held (person, role) VALUES (${CORRIE}, ${CLERK});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k) VALUES (1, 0, 0, 'Quay', 'quay'), (2, 0, 0, 'Brig', 'brig')`)
	const add = store.db.prepare(
		`INSERT INTO t3 (made_at, changed_at, c30, c30k, c31, c32, c33, c34, c35, c35k) VALUES (0, 0, ?, text_key(?), ?, ?, ?, ?, ?, text_key(?))`
	)
	store.db.transaction(() => {
		for (let i = 0; i < ROWS; i++) {
			const boat = i % 100 === 0 ? random.pick(WORDS) : `Boat ${i}`
			const note = i % 701 === 0 ? `a note\nabout ${random.pick(WORDS)}` : null
			const berth = i % 9000 === 0 ? 2 : i % 997 === 0 ? 1 : null
			const crew = i % 499 === 0 ? random.pick(WORDS) : null
			add.run(boat, boat, note, berth, i % 20, 1 + (i % 2), crew, crew)
		}
	})()
	while (growTextIndex(store) !== 'done');
})

afterAll(() => void store.db.close())

const anywhere = (text: string): Filter => ({ column: 0, is: 'contains', text })
const among = (filter: Filter) => fewCandidates(store, getTable(store.workspace().catalogue, CALLS), [filter])

/** All rows that a person finds, by pages. */
function found(person: number, filter: Filter): string[] {
	const ids: string[] = []
	let after: string | undefined
	do {
		const page = readRows(store, { person }, { table: CALLS, filters: [filter], limit: 1000, after }, NOW)
		ids.push(...page.rows.map(({ id }) => id))
		after = page.next ?? undefined
	} while (after !== undefined)
	return ids
}

/** The same without the index: nothing is indexed while this is asked. */
function foundByLooking(person: number, filter: Filter): string[] {
	store.db.exec(`UPDATE text_index SET upto = upto - 1`)
	const rows = found(person, filter)
	store.db.exec(`UPDATE text_index SET upto = upto + 1`)
	return rows
}

const SOUGHT = [
	'dunlin',
	'örn',
	'STRASSE',
	'straße',
	'y "so',
	'boat 4321',
	'about kn',
	'rig',
	'quay',
	'moored',
	'4321',
	'no such',
	'ruffa'
]

describe.each([
	['who keeps the table', KEEPER],
	['who sees some rows and columns', CORRIE]
])('%s', (_who, person) => {
	test.each(SOUGHT)('finds "%s" in any column as by looking at every row', (text) => {
		expect(found(person, anywhere(text))).toEqual(foundByLooking(person, anywhere(text)))
	})

	test.each([BOAT, NOTE, BERTH, STATE, CREW])('finds "knot" in column %i as by looking', (column) => {
		const filter: Filter = { column, is: 'contains', text: 'knot' }
		expect(found(person, filter)).toEqual(foundByLooking(person, filter))
	})
})

test('finds something at all, and what is kept back from a reader is not found by it', () => {
	expect(found(KEEPER, anywhere('petrel')).length).toBeGreaterThan(found(CORRIE, anywhere('petrel')).length)
	expect(found(CORRIE, anywhere('petrel')).length).toBeGreaterThan(0)
	expect(found(CORRIE, { column: CREW, is: 'contains', text: 'petrel' })).toEqual([])
	// The label of a row that Corrie does not see is no text of the rows that point to it.
	expect(found(CORRIE, anywhere('brig'))).toEqual([])
	expect(found(KEEPER, anywhere('brig')).length).toBeGreaterThan(3)
})

test('few rows that could fit are looked up; where there are many, or the index cannot tell, every row is looked at', () => {
	expect(among(anywhere('boat 4321'))).toBeDefined()
	// Stands in nearly every row; is too short; could stand in a number; stands in the words of a choice.
	for (const text of ['boat', 'kn', '123', 'moor']) expect(among(anywhere(text)), text).toBeUndefined()
	expect(among({ column: BOAT, is: 'equal', text: 'boat 4321' })).toBeUndefined()
})

test('an order, a count and places to jump to are those of the same rows', () => {
	const request = { table: CALLS, filters: [anywhere('dunlin')], sort: { column: LENGTH, descending: true } }
	const { count } = readAnchors(store, by.actor, request, NOW)
	const { rows } = readRows(store, by.actor, { ...request, limit: 1000 }, NOW)
	expect(rows).toHaveLength(count)
	const lengths = rows.map(({ cells }) => Number(cells[`c${LENGTH}`]))
	expect(lengths).toEqual([...lengths].sort((a, b) => b - a))
})

describe('the index follows', () => {
	const codes = (text: string) => found(KEEPER, anywhere(text)).length
	const change = (
		kind: 'change' | 'remove' | 'restore',
		row: string,
		cells: { column: number; value: string }[] = []
	) => changeRows(store, [{ kind, table: CALLS, row, cells } as never], by)

	test('a row that is added, changed, removed and put back', () => {
		const cells = [{ column: BOAT, value: 'Whimbrel' }]
		const [added] = changeRows(store, [{ kind: 'add', table: CALLS, cells }], by)
		const row = added?.row ?? ''
		expect([codes('whimbrel'), codes('sanderling')]).toEqual([1, 0])
		change('change', row, [{ column: BOAT, value: 'Sanderling' }])
		expect([codes('whimbrel'), codes('sanderling')]).toEqual([0, 1])
		change('change', row, [{ column: NOTE, value: 'once the Whimbrel' }])
		expect([codes('whimbrel'), codes('sanderling')]).toEqual([1, 1])
		change('remove', row)
		expect([codes('whimbrel'), codes('sanderling')]).toEqual([0, 0])
		change('restore', row)
		expect([codes('whimbrel'), codes('sanderling')]).toEqual([1, 1])
	})

	test('changes while it grows: what is past it waits, what is in it is kept', () => {
		store.db.exec(`UPDATE text_index SET upto = 0; DELETE FROM s3`)
		for (let i = 0; i < 3; i++) growTextIndex(store)
		const [early, late] = [store.ids.toId(CALLS, 5), store.ids.toId(CALLS, 40_000)]
		for (const row of [early, late]) change('change', row, [{ column: BOAT, value: 'Turnstone' }])
		changeRows(store, [{ kind: 'add', table: CALLS, cells: [{ column: BOAT, value: 'Turnstone' }] }], by)
		expect(isTextIndexed(store, getTable(store.workspace().catalogue, CALLS))).toBe(false)
		expect(codes('turnstone')).toBe(3)
		while (growTextIndex(store) !== 'done');
		expect(among(anywhere('turnstone'))).toBeDefined()
		expect(codes('turnstone')).toBe(3)
	})

	test('another column of text: it is made anew', () => {
		const column = addColumn(store, { ...by, table: CALLS, column: { name: 'flag', type: 'text' } })
		expect(among(anywhere('turnstone'))).toBeUndefined()
		while (growTextIndex(store) !== 'done');
		change('change', store.ids.toId(CALLS, 9), [{ column: Number(column), value: 'Varrow ensign' }])
		expect(among(anywhere('ensign'))).toBeDefined()
		expect(codes('ensign')).toBe(1)
	})

	test('a column that becomes another type', () => {
		convertColumn(store, { ...by, table: CALLS, column: CREW, type: 'long text' })
		while (growTextIndex(store) !== 'done');
		expect(found(KEEPER, anywhere('petrel'))).toEqual(foundByLooking(KEEPER, anywhere('petrel')))
	})
})

test.each([
	['abc', '"abc"'],
	[' ABCD ', '"abc" AND "bcd"'],
	['a"b"', '"a""b" AND """b"""'],
	['Örn', '"örn"'],
	['🌊🌊🌊', '"🌊🌊🌊"'],
	['aaaa', '"aaa"'],
	['ab', undefined],
	['', undefined],
	['a\0bc', undefined]
])('%j is asked for as %j (FTS5, trigrams)', (text, match) => {
	expect(matchOf(text)).toBe(match)
})

describe('digits in numbers', () => {
	const NUMBERS = [0, 5, 12.5, -12.5, 120, 0.05, 1005, 1e6, 123456.78, 90_071_992_547.41]
	const typed = { money: {}, percent: { places: 2 }, decimal: { places: 2 }, 'whole number': {} } as const
	const numbers = openScratch({
		now: NOW,
		tables: [
			{
				id: 2,
				name: 'costs',
				keepers: [KEEPER],
				label: 20,
				columns: Object.entries(typed).map(([type, more], i) => ({
					id: 20 + i,
					name: type,
					type: type as 'money',
					...more
				}))
			}
		]
	})
	for (const value of NUMBERS) {
		const cells = [20, 21, 22].map((column) => ({ column, value: Math.round(value * 100) / 100 }))
		const whole = { column: 23, value: Math.trunc(value) }
		changeRows(numbers, [{ kind: 'add', table: 2, cells: [...cells, whole] }], by)
	}

	test.each(['5', '12', '2.5', '0.05', '.05', '-12', '00', '0', '.', '1005', '6.78', '7199', '1.', '99'])(
		'%s',
		(text) => {
			for (const column of [20, 21, 22, 23]) {
				const { rows } = readRows(numbers, by.actor, { table: 2, filters: [{ column, is: 'contains', text }] }, NOW)
				const all = readRows(numbers, by.actor, { table: 2 }, NOW).rows
				// As JavaScript writes numbers (ECMA-262, Number::toString), which is how a formula shows them, too.
				const wanted = all.filter(({ cells }) => String(cells[`c${column}`]).includes(text))
				expect(
					rows.map(({ id }) => id),
					`column ${column}`
				).toEqual(wanted.map(({ id }) => id))
			}
		}
	)
})

test('a small table has no index', () => {
	const small = openScratch({
		now: NOW,
		tables: [{ id: 2, name: 'berths', keepers: [KEEPER], label: 20, columns: [{ id: 20, name: 'name', type: 'text' }] }]
	})
	expect(growTextIndex(small)).toBe('done')
	small.db.close()
})

test('indexes grow step by step as long as there is more to do, and stop when asked', async () => {
	let left = 3
	const steps: number[] = []
	const indexing = startIndexing(async () => {
		steps.push(left)
		return Promise.resolve(--left > 0 ? 'more' : 'done')
	})
	indexing.wake()
	// Something turned while it was at work: it looks once more.
	indexing.wake()
	await expect.poll(() => steps).toEqual([3, 2, 1, 0])
	left = 1_000_000
	indexing.wake()
	await indexing.close()
	expect(left).toBeGreaterThan(900_000)
	indexing.wake()
	expect(steps.length).toBeLessThan(100)
})

test('while files come in, an index waits, and is closed without waiting', async () => {
	let asked = 0
	const indexing = startIndexing(async () => {
		asked++
		return Promise.resolve('later')
	})
	indexing.wake()
	await expect.poll(() => asked).toBe(1)
	await indexing.close()
	expect(asked).toBe(1)
})
