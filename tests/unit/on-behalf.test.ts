/**
 * Who made a row and whom it concerns are two columns: the first is filled by itself and granted to nobody, so that it cannot
 * be forged; the second is chosen, on behalf of somebody or as an assignment. Lines name either.
 */
import { beforeEach, expect, test } from 'vitest'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import type { Store } from '$lib/server/store/store.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [LEAVE, CLERK, WHAT, MADE_BY, FOR] = [2, 10, 20, 21, 22]
const [SELA, LOWEN, CORRIE] = [2, 3, 4]

let store: Store

beforeEach(() => {
	const person = { type: 'reference' as const, to: 1 }
	store = openScratch({
		now: NOW,
		roles: [{ id: CLERK, name: 'Clerks', includes: [] }],
		lines: [
			{ id: 'n', table: 1, role: CLERK, verbs: ['see'], where: '', columns: { kind: 'all' } },
			{
				id: 'a',
				table: LEAVE,
				role: CLERK,
				verbs: ['add'],
				where: '',
				columns: { kind: 'except', columns: [MADE_BY] }
			},
			{
				id: 's',
				table: LEAVE,
				role: CLERK,
				verbs: ['see'],
				where: "'made by' = me or 'made for' = me",
				columns: { kind: 'all' }
			},
			{
				id: 'c',
				table: LEAVE,
				role: CLERK,
				verbs: ['change'],
				where: "'made for' = me",
				columns: { kind: 'only', columns: [WHAT] }
			}
		],
		tables: [
			{
				id: LEAVE,
				name: 'leave',
				keepers: [KEEPER],
				label: WHAT,
				columns: [
					{ id: WHAT, name: 'what', type: 'text' },
					{ id: MADE_BY, name: 'made by', ...person, reverseName: 'leave made', otherwise: 'me' },
					{ id: FOR, name: 'made for', ...person, reverseName: 'leave' }
				]
			}
		]
	})
	for (const [n, name] of [
		[SELA, 'Sela'],
		[LOWEN, 'Lowen'],
		[CORRIE, 'Corrie']
	] as const) {
		store.db
			.prepare('INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (?, 0, 0, ?, ?)')
			.run(n, name, name.toLowerCase())
		store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(n, CLERK)
	}
})

const id = (person: number) => ({ id: store.ids.toId(1, person) })
const ask = (person: number, cells: CellChange[]) =>
	changeRows(store, [{ kind: 'add', table: LEAVE, cells }], { actor: { person }, now: NOW, through: 'grid' })[0]?.row ??
	''
const seenBy = (person: number) => readRows(store, { person }, { table: LEAVE }, NOW).rows.map((row) => row.cells)

test('on behalf: who made it and whom it concerns both see it, nobody else does', () => {
	ask(SELA, [
		{ column: WHAT, value: 'A week in May' },
		{ column: FOR, value: id(LOWEN) }
	])
	expect(seenBy(SELA)[0]?.[`c${MADE_BY}`]).toMatchObject({ label: 'Sela' })
	expect(seenBy(LOWEN)[0]?.[`c${FOR}`]).toMatchObject({ label: 'Lowen' })
	expect(seenBy(CORRIE)).toEqual([])
})

test('nobody says that somebody else made it', () => {
	const forged = [
		{ column: WHAT, value: 'A week in May' },
		{ column: MADE_BY, value: id(CORRIE) }
	]
	expect(() => ask(SELA, forged)).toThrow('You may not add "made by"')
})

test('what a line gives to whom it concerns, its maker does not get', () => {
	const row = ask(SELA, [
		{ column: WHAT, value: 'A week in May' },
		{ column: FOR, value: id(LOWEN) }
	])
	const change = (person: number) => {
		const cells = [{ column: WHAT, value: 'Two weeks' }]
		changeRows(store, [{ kind: 'change', table: LEAVE, row, cells }], { actor: { person }, now: NOW, through: 'grid' })
	}
	expect(() => change(SELA)).toThrow('You may not change')
	expect(() => change(LOWEN)).not.toThrow()
})
