/** Whom a kept total serves, and by which of its places: read off the lines of access, before any row is looked at. */
import { expect, test } from 'vitest'
import { isAlways, isNever } from '$lib/core/formula/syntax/constant.ts'
import { rollupsOf, whereServed } from '$lib/core/formula/sql/rollups.ts'
import { getColumn, getTable } from '$lib/core/model/table.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { standingOf } from '$lib/server/rights/rights-of-actor.ts'
import { seeLine } from '../support/see-line.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const [HARBOURS, MOORINGS, LOOKS, ROLE, PERSON] = [2, 3, 4, 20, 2]
const [MOORING, DIVER, FILER, DONE, COST, GRADE, LIMIT] = [40, 41, 42, 43, 44, 45, 46]

/** What a total over looks comes to for somebody with these lines: each line the condition, and the columns it keeps back. */
function served(
	lines: readonly (readonly [where: string, except?: readonly number[]])[],
	total: string,
	moorings = ''
) {
	const [see, seeMoorings] = [seeLine(LOOKS), seeLine(MOORINGS)]
	const store = openScratch({
		now: NOW,
		peopleColumns: [
			{ id: 3, name: 'harbour', type: 'reference', to: HARBOURS, reverseName: 'people' },
			{ id: 4, name: 'grade', type: 'choice', choices: ['Junior', 'Senior'] },
			{ id: 5, name: 'limit', type: 'money' }
		],
		roles: [{ id: ROLE, name: 'Divers', includes: [] }],
		lines: [
			...lines.map(([where, except = []], i) => see(`look ${i}`, ROLE, where, [...except])),
			seeMoorings('mooring', ROLE, moorings)
		],
		tables: [
			{
				id: HARBOURS,
				name: 'harbours',
				keepers: [KEEPER],
				label: 10,
				columns: [{ id: 10, name: 'name', type: 'text' }]
			},
			{
				id: MOORINGS,
				name: 'moorings',
				keepers: [KEEPER],
				label: 30,
				columns: [
					{ id: 30, name: 'code', type: 'text' },
					{ id: 31, name: 'harbour', type: 'reference', to: HARBOURS },
					{ id: 32, name: 'total', type: 'computed', formula: total }
				]
			},
			{
				id: LOOKS,
				name: 'looks',
				keepers: [KEEPER],
				label: FILER,
				columns: [
					{ id: MOORING, name: 'mooring', type: 'reference', to: MOORINGS },
					{ id: DIVER, name: 'diver', type: 'reference', to: 1 },
					{ id: FILER, name: 'filer', type: 'email' },
					{ id: DONE, name: 'done', type: 'yes/no' },
					{ id: COST, name: 'cost', type: 'money' },
					{ id: GRADE, name: 'grade', type: 'choice', choices: ['Senior', 'Junior'] },
					{ id: LIMIT, name: 'allowed', type: 'money' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c3, c4, c5) VALUES (${PERSON}, 0, 0, 'I', 'i', 'i@varrow.example', 'i@varrow.example', 1, 2, 500);
		INSERT INTO role_held (person, role) VALUES (${PERSON}, ${ROLE})`)
	const { catalogue } = store.workspace()
	const [kept] = rollupsOf(getColumn(getTable(catalogue, MOORINGS), 32).computed?.expr ?? never())
	const { where, elseNone, elseOf } = whereServed(kept ?? never(), standingOf(store, { person: PERSON }, NOW).rights)
	store.db.close()
	const rows = isAlways(where) ? 'all rows' : isNever(where) ? 'no row' : 'some rows'
	const otherwise = elseNone ? 'none' : elseOf ? `those of ${elseOf.column.name}` : 'counted'
	return rows === 'all rows' ? rows : `${rows}, else ${otherwise}`
}

function never(): never {
	throw new Error('Expected a total that is kept')
}

const COUNT = 'COUNT(looks)'
const SUM = 'SUM(looks.cost)'

test.each<[string, Parameters<typeof served>]>([
	['all rows', [[['']], COUNT]],
	['some rows, else none', [[['mooring.harbour = me.harbour']], COUNT]],
	// The moorings themselves are seen by the same condition, so it need not be asked again.
	['all rows', [[['mooring.harbour = me.harbour']], COUNT, 'harbour = me.harbour']],
	['no row, else those of diver', [[['diver = me']], COUNT]],
	['no row, else those of filer', [[['filer = me.email']], COUNT]],
	['no row, else those of filer', [[['me.email = filer']], COUNT]],
	['some rows, else those of diver', [[['mooring.harbour = me.harbour'], ['diver = me']], COUNT]],
	['some rows, else those of diver', [[['mooring.harbour = me.harbour or diver = me']], COUNT]],
	// Two values, a further condition, the opposite, or a constant that is nobody's own: each look is asked.
	['no row, else counted', [[['diver = me'], ['filer = me.email']], COUNT]],
	['no row, else counted', [[['diver = me and done']], COUNT]],
	['no row, else counted', [[['diver <> me']], COUNT]],
	['no row, else counted', [[['filer = "i@varrow.example"']], COUNT]],
	['no row, else counted', [[['done']], COUNT]],
	// Not stored as they are compared: the number of a choice is its own column's, money is scaled.
	['no row, else counted', [[['grade = me.grade']], COUNT]],
	['no row, else counted', [[['allowed = me.limit']], COUNT]],
	// What is totalled must be seen wherever its row is, and so must what the total asks.
	['no row, else counted', [[['', [COST]]], SUM]],
	['all rows', [[['', [COST]]], COUNT]],
	['no row, else counted', [[['', [COST]], ['diver = me']], SUM]],
	['no row, else those of diver', [[['diver = me']], 'SUM(FILTER(looks; done).cost)']],
	['no row, else counted', [[['', [DONE]]], 'COUNT(FILTER(looks; done))']]
])('%s: lines and total %j', (wanted, given) => {
	expect(served(...given)).toBe(wanted)
})
