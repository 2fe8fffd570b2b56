/** Computed columns that are not kept: those that read the day, the looker or other rows, wherever they are read from. */
import { expect, test } from 'vitest'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { countRows, readRows } from '$lib/server/rows/read.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const TOMORROW = NOW + 86_400_000
const [MOORINGS, DIVERS] = [2, 12]

function makeStore() {
	const store = openScratch({
		now: NOW,
		peopleColumns: [
			{ id: 3, name: 'grade', type: 'whole number' },
			{ id: 4, name: 'senior', type: 'computed', formula: 'grade > 3 and TODAY() > "2020-01-01"' }
		],
		roles: [{ id: DIVERS, name: 'divers', includes: [] }],
		lines: [
			{ id: 'l', table: MOORINGS, role: DIVERS, verbs: ['see'], where: 'late and me.senior', columns: { kind: 'all' } }
		],
		tables: [
			{
				id: MOORINGS,
				name: 'moorings',
				keepers: [KEEPER],
				label: 10,
				columns: [
					{ id: 10, name: 'code', type: 'text' },
					{ id: 11, name: 'due', type: 'date' },
					{ id: 12, name: 'late', type: 'computed', formula: 'due < TODAY()' },
					{ id: 13, name: 'looker', type: 'computed', formula: 'me.name & " " & late' },
					{ id: 14, name: 'previous', type: 'reference', to: MOORINGS },
					{ id: 15, name: 'previous late', type: 'computed', formula: 'previous.late' }
				]
			}
		]
	})
	const person = store.db.prepare(
		`INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c3) VALUES (?, 0, 0, ?, ?, ?, ?, ?)`
	)
	for (const [n, name, grade] of [
		[2, 'Imke', 5],
		[3, 'Jory', 1]
	] as const) {
		person.run(n, name, name.toLowerCase(), `${name}@varrow.example`, `${name.toLowerCase()}@varrow.example`, grade)
		store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(n, DIVERS)
	}
	const by = { actor: { person: KEEPER }, now: NOW, through: 'grid' as const }
	const add = (code: string, due: string, previous?: string) =>
		changeRows(
			store,
			[
				{
					kind: 'add',
					table: MOORINGS,
					cells: [
						{ column: 10, value: code },
						{ column: 11, value: due },
						{ column: 14, value: previous ? { id: previous } : null }
					]
				}
			],
			by
		)[0]?.row ?? ''
	const first = add('NH-001', '2026-11-22')
	add('NH-002', '2026-11-23', first)
	return store
}

test('a column that reads the day or the looker is shown, sorted by and read through a reference', () => {
	const store = makeStore()
	const sort = { column: 12, descending: true }
	const then = [{ column: 13, descending: false }]
	const read = (now: number) =>
		readRows(store, { person: KEEPER }, { table: MOORINGS, sort, then }, now).rows.map(({ cells }) => [
			cells['c10'],
			cells['c12'],
			cells['c13'],
			cells['c15']
		])
	expect(read(NOW)).toEqual([
		['NH-001', true, 'Keeper TRUE', null],
		['NH-002', false, 'Keeper FALSE', true]
	])
	expect(read(TOMORROW)).toEqual([
		['NH-001', true, 'Keeper TRUE', null],
		['NH-002', true, 'Keeper TRUE', true]
	])
})

test('looking as somebody, each one’s lines are judged by their own row', () => {
	const store = makeStore()
	const seen = (actor: { person: number; lookedAtBy: number }) =>
		countRows(store, actor, { table: MOORINGS, limit: 10 }, TOMORROW)
	// Jory is not senior, so what Imke sees is not his to see, nor the other way round.
	expect([seen({ person: 2, lookedAtBy: 3 }), seen({ person: 3, lookedAtBy: 2 })]).toEqual([0, 0])
	expect(seen({ person: 2, lookedAtBy: KEEPER })).toBe(2)
})

test('a line may read such columns, of the row and of me', () => {
	const store = makeStore()
	const seen = (person: number, now: number) => countRows(store, { person }, { table: MOORINGS, limit: 10 }, now)
	expect([seen(2, NOW), seen(2, TOMORROW), seen(3, NOW)]).toEqual([1, 2, 0])
})
