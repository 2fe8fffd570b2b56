/** How much a formula may have to look at, and that what asks for too much is saved nowhere. */
import { beforeEach, expect, test } from 'vitest'
import { rowsLookedAt } from '$lib/core/formula/check/cost.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { checkDraft } from '$lib/server/apps/check-draft.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import type { Store } from '$lib/server/store/store.ts'
import { tryCondition } from '$lib/server/review/bench.ts'
import { changeTable } from '$lib/server/structure/change-columns.ts'
import { addColumn, saveLines, setFormula } from '$lib/server/structure/tables.ts'
import { tryFormula } from '$lib/server/review/try-formula.ts'
import { oneListApp } from '../support/one-list-app.ts'
import { seeLine } from '../support/see-line.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [BOATS, BOAT, LENGTH, GROUP, KEPT, DEAR] = [2, 20, 21, 22, 23, 24]
const [GROUPS, NAME] = [3, 30]
const ROWS = 264
const by = { actor: { person: KEEPER }, now: NOW }
let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		roles: [{ id: 10, name: 'Crew', includes: [] }],
		tables: [
			{
				id: GROUPS,
				name: 'groups',
				keepers: [KEEPER],
				label: NAME,
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: KEPT, name: 'how many', type: 'computed', formula: 'COUNT(members)' }
				]
			},
			{
				id: BOATS,
				name: 'boats',
				keepers: [KEEPER],
				label: BOAT,
				columns: [
					{ id: BOAT, name: 'boat', type: 'text' },
					{ id: LENGTH, name: 'length', type: 'whole number' },
					{ id: GROUP, name: 'group', type: 'reference', to: GROUPS, reverseName: 'members' },
					{ id: DEAR, name: 'longer', type: 'computed', formula: 'COUNT(FILTER(group.members; length > this.length))' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t3 (n, made_at, changed_at, c30, c30k) VALUES (1, 0, 0, 'All', 'all');
		WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < ${ROWS})
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c22) SELECT n, 0, 0, 'Boat ' || n, 'boat ' || n, n % 300, 1 FROM i`)
})

const nest = (depth: number): string =>
	depth === 0 ? 'length > 3' : `COUNT(FILTER(group.members; ${nest(depth - 1)})) > 1`

const N = ROWS
const cases: [text: string, want: number][] = [
	['length > 3', 0],
	['group.name', 0],
	["group.'how many'", 0],
	[nest(1), N],
	[nest(2), N + N * N],
	[nest(3), N + N * (N + N * N)],
	['SUM(group.members.length) + COUNT(group.members)', 2 * N],
	['SUM(group.members.longer)', N + N * N],
	['longer', N],
	['FIRST(SORT(group.members; longer)).boat', N + N * N]
]
test.each(cases)('%s looks at %i rows for each', (text, want) => {
	const { catalogue } = store.workspace()
	const rows = [catalogue.tables.get(BOATS)].filter((table) => table !== undefined)
	const { expr, issues } = check(text, { catalogue, rows, me: false })
	expect(issues).toEqual([])
	expect(expr && rowsLookedAt(expr, () => N)).toBe(want)
})

const TOO_MUCH = /asks for too much. For each row it may have to look at 18,469,704 others/

test('what asks for too much is tried nowhere and saved nowhere, in words that say how to mend it', () => {
	const dear = nest(3)
	const trial = tryCondition(store, { ...by, table: BOATS, text: dear, people: [], me: true })
	expect(trial).toMatchObject({ ok: false, issues: [{ code: 'too_much' }] })
	expect(trial.issues[0]?.message).toContain('Work part of it out in a column of its own')
	expect(tryFormula(store, { ...by, table: BOATS, text: dear }).issues[0]?.code).toBe('too_much')
	const line = [seeLine(BOATS)('x', 10, dear)]
	expect(() => saveLines(store, { table: BOATS, lines: line, version: store.workspace().version, ...by })).toThrow(
		TOO_MUCH
	)
	const words = { checks: [{ formula: nest(2), message: 'No.' }] }
	expect(() => changeTable(store, { table: BOATS, words, ...by })).toThrow('asks for too much')
	const column = { name: 'far', type: 'computed' as const, formula: dear }
	expect(() => addColumn(store, { table: BOATS, column, ...by })).toThrow(TOO_MUCH)
})

test('a formula that is written anew for a column there is, too', () => {
	expect(() => setFormula(store, { table: BOATS, column: DEAR, formula: nest(3), ...by })).toThrow(TOO_MUCH)
})

test('a list that asks for too much keeps its app from being released', () => {
	const app = oneListApp('Boats', BOATS, BOAT)
	const [screen] = app.screens
	const [list] = screen?.lines ?? []
	if (!screen || list?.kind !== 'list') throw new Error('Expected a list')
	const document = { ...app, screens: [{ ...screen, lines: [{ ...list, where: nest(3) }] }] }
	const id = addAppFrom(store, { document, ...by })
	expect(checkDraft(store, { app: id, now: NOW })).toContainEqual(
		expect.objectContaining({ weight: 'mistake', message: expect.stringMatching(/asks for too much/) as string })
	)
})

test('what is much, but not too much, is said', () => {
	const trial = tryCondition(store, { ...by, table: BOATS, text: nest(2), people: [], me: true })
	expect(trial).toMatchObject({ ok: true, looksAt: N + N * N })
	expect(tryCondition(store, { ...by, table: BOATS, text: nest(1), people: [], me: true })).not.toHaveProperty(
		'looksAt'
	)
})
