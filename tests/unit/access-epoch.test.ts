/** What somebody holds is remembered between requests: here, that no change of it is ever missed. */
import { beforeEach, describe, expect, test } from 'vitest'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { standingOf } from '$lib/server/rights/rights-of-actor.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [HARBOURS, MOORINGS, DIVER, SENIOR, IMKE] = [2, 3, 10, 11, 2]

let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		peopleColumns: [
			{ id: 3, name: 'harbour', type: 'reference', to: HARBOURS, reverseName: 'people' },
			{ id: 4, name: 'grade', type: 'text' }
		],
		roles: [
			{ id: DIVER, name: 'Divers', includes: [] },
			{ id: SENIOR, name: 'Seniors', includes: [], where: 'grade = "senior"' }
		],
		lines: [
			{
				id: 'a',
				table: MOORINGS,
				role: DIVER,
				verbs: ['see'],
				where: 'harbour = me.harbour',
				columns: { kind: 'all' }
			},
			{ id: 'b', table: MOORINGS, role: SENIOR, verbs: ['see'], where: '', columns: { kind: 'all' } }
		],
		tables: [
			{
				id: HARBOURS,
				name: 'harbours',
				keepers: [KEEPER],
				label: 20,
				columns: [
					{ id: 20, name: 'name', type: 'text' },
					{ id: 21, name: 'open', type: 'yes/no' }
				]
			},
			{
				id: MOORINGS,
				name: 'moorings',
				keepers: [KEEPER],
				label: 30,
				columns: [
					{ id: 30, name: 'code', type: 'code' },
					{ id: 31, name: 'harbour', type: 'reference', to: HARBOURS }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21) VALUES (1, 0, 0, 'Ness', 'ness', 1), (2, 0, 0, 'Gull', 'gull', 0);
		INSERT INTO t3 (made_at, changed_at, c30, c30k, c31) VALUES (0, 0, 'N-1', 'n-1', 1), (0, 0, 'G-1', 'g-1', 2), (0, 0, 'G-2', 'g-2', 2);
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c3) VALUES (${IMKE}, 0, 0, 'Imke', 'imke', 1)`)
})

const sees = () => readRows(store, { person: IMKE }, { table: MOORINGS }, NOW).rows.length
const by = { actor: { person: KEEPER }, now: NOW, through: 'grid' as const }
const change = (table: number, n: number, column: number, value: string | boolean | { id: string }) =>
	changeRows(store, [{ kind: 'change', table, row: store.ids.toId(table, n), cells: [{ column, value }] }], by)

/** Each, and how many moorings Imke sees after it, told after she was asked for before. */
const TURNS: readonly [what: string, turn: () => void, seen: number][] = [
	['a role is given', () => store.db.exec(`INSERT INTO role_held (person, role) VALUES (${IMKE}, ${DIVER})`), 1],
	['her harbour is another', () => change(1, IMKE, 3, { id: store.ids.toId(HARBOURS, 2) }), 2],
	['her row fits a role', () => change(1, IMKE, 4, 'senior'), 3],
	['it fits it no more', () => change(1, IMKE, 4, 'junior'), 2],
	['she is suspended', () => store.db.exec(`INSERT INTO suspended (person, at) VALUES (${IMKE}, 0)`), 0],
	['she is let back', () => store.db.exec(`DELETE FROM suspended`), 2],
	['the role is taken', () => store.db.exec(`DELETE FROM role_held WHERE person = ${IMKE}`), 0],
	[
		'a team that holds it takes her in',
		() =>
			store.db.exec(`
				INSERT INTO team (id, name, name_key, made_at) VALUES (1, 'Gull', 'gull', 0);
				INSERT INTO team_role (team, role) VALUES (1, ${DIVER});
				INSERT INTO team_member (team, person) VALUES (1, ${IMKE})`),
		2
	],
	['the team loses the role', () => store.db.exec(`DELETE FROM team_role`), 0],
	[
		'a row is granted to her by name',
		() =>
			store.db.exec(`
				INSERT INTO row_grant (person, table_id, row_n, column_id, case_id) VALUES (${IMKE}, ${MOORINGS}, 1, 30, 1);
				INSERT INTO role_held (person, role) VALUES (${IMKE}, 99)`),
		1
	]
]

describe('what somebody holds', () => {
	test('follows every change, asked before and after', () => {
		expect(sees()).toBe(0)
		for (const [what, turn, seen] of TURNS) {
			turn()
			expect([what, sees()]).toEqual([what, seen])
		}
	})

	test('is not remembered from a change that was undone, nor mistaken for it', () => {
		store.db.exec('SAVEPOINT change')
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${IMKE}, ${DIVER})`)
		expect(sees()).toBe(1)
		store.db.exec('ROLLBACK TO change; RELEASE change')
		// The next change of the same size must not look like the one that was undone.
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${KEEPER}, ${DIVER})`)
		expect(sees()).toBe(0)
	})

	test('is not remembered where a role’s condition reads further than the person’s row', () => {
		const { document } = store.workspace()
		const roles = document.roles.map((role) => (role.id === SENIOR ? { ...role, where: 'harbour.open' } : role))
		saveWorkspace(store, { ...document, roles }, { now: NOW, by: KEEPER })
		expect(sees()).toBe(3)
		change(HARBOURS, 1, 21, false)
		expect(sees()).toBe(0)
	})

	test('is the same object while nothing turned: it was remembered', () => {
		const roles = () => standingOf(store, { person: IMKE }, NOW).roles
		expect(roles()).toBe(roles())
		const before = roles()
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${IMKE}, ${DIVER})`)
		expect(roles()).not.toBe(before)
	})
})
