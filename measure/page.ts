/** A page of 50 under access lines, on a million rows. */
import { KEEPER, openScratch } from '../tests/support/scratch-store.ts'
import { atMost, planPage } from '../src/lib/core/query/plan.ts'
import { standingOf } from '../src/lib/server/rights/rights-of-actor.ts'
import { readRows } from '../src/lib/server/rows/read.ts'
import { getColumn, getTable } from '../src/lib/core/model/table.ts'
import { createIndex } from '../src/lib/server/store/schema.ts'
import { takeStatistics } from '../src/lib/server/derived/table-statistics.ts'
import { median, paired, time } from './timing.ts'

const ROWS = 1_000_000
const RUNS = 400
const NOW = Date.parse('2026-11-23T12:00:00Z')
const [HARBOURS, MOORINGS] = [2, 3]
const [MASTER, CLERK, DIVER] = [10, 11, 12]

export interface PageCase {
	readonly name: string
	readonly ours: number
	readonly byHand: number
}

export function measurePage(): { rows: number; cases: PageCase[]; whole: number } {
	const store = openMillion()
	const { catalogue } = store.workspace()
	const table = getTable(catalogue, MOORINGS)
	const columns = [20, 21, 22, 23].map((id) => getColumn(table, id))
	const list = 'r.n, r.rev, r.c20, r.c21, (SELECT h.c10 FROM t2 h WHERE h.n = r.c21), r.c22, r.c23'
	const due = (condition: string) =>
		`SELECT ${list} FROM t3 r WHERE ${condition} AND r.c22 IS NOT NULL ORDER BY r.c22, r.n LIMIT 50`

	const cases = [
		{ name: 'own harbour (a quarter of the rows)', person: 2, sql: due('r.c21 = 1') },
		{ name: 'own harbour or overdue', person: 3, sql: due(`(r.c21 = 2 OR r.c22 < '2026-11-23')`) },
		{ name: 'every row, one column kept back', person: 4, sql: due('1') }
	].map(({ name, person, sql }) => {
		const { rights } = standingOf(store, { person }, NOW)
		const sort = { column: getColumn(table, 22), descending: false }
		const plan = planPage({ table, columns, where: [], sort }, { catalogue, rights })
		const [branch] = plan.branches
		if (!branch) throw new Error('Expected the plan to have a branch')
		const query = atMost(branch, 50)
		const ours = store.prepare(query.text).raw()
		const byHand = store.db.prepare(sql).raw()
		return {
			name,
			...paired(
				() => ours.all(...query.params),
				() => byHand.all(),
				RUNS
			)
		}
	})
	const sort = { column: 22, descending: false }
	const whole = median(
		times(() => readRows(store, { person: 2 }, { table: MOORINGS, columns: [20, 21, 22, 23], sort }, NOW))
	)
	store.db.close()
	return { rows: ROWS, cases, whole }
}

/** A million moorings of four harbours, under lines of access of three roles. */
export function openMillion() {
	const store = openScratch({
		now: NOW,
		peopleColumns: [{ id: 3, name: 'harbour', type: 'reference', to: HARBOURS, reverseName: 'people' }],
		roles: [MASTER, CLERK, DIVER].map((id) => ({ id, name: `role ${id}`, includes: [] })),
		lines: [
			{ id: 'h', table: HARBOURS, role: 1, verbs: ['see'], where: '', columns: { kind: 'all' } },
			{
				id: 'm',
				table: MOORINGS,
				role: MASTER,
				verbs: ['see'],
				where: 'harbour = me.harbour',
				columns: { kind: 'all' }
			},
			{
				id: 'd',
				table: MOORINGS,
				role: DIVER,
				verbs: ['see'],
				where: 'harbour = me.harbour or next due < TODAY()',
				columns: { kind: 'all' }
			},
			{ id: 'c', table: MOORINGS, role: CLERK, verbs: ['see'], where: '', columns: { kind: 'except', columns: [24] } }
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
				label: 20,
				columns: [
					{ id: 20, name: 'code', type: 'code' },
					{ id: 21, name: 'harbour', type: 'reference', to: HARBOURS },
					{ id: 22, name: 'next due', type: 'date' },
					{ id: 23, name: 'depth', type: 'decimal', places: 1 },
					{ id: 24, name: 'arrears', type: 'money' }
				]
			}
		]
	})
	store.db.transaction(() => {
		for (let h = 1; h <= 4; h++)
			store.db
				.prepare('INSERT INTO t2 (n, made_at, changed_at, c10, c10k) VALUES (?, 0, 0, ?, ?)')
				.run(h, `Harbour ${h}`, `harbour ${h}`)
		const person = store.db.prepare(
			'INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c3) VALUES (?, 0, 0, ?, ?, ?, ?, ?)'
		)
		const roles: [number, number, number | null][] = [
			[2, MASTER, 1],
			[3, DIVER, 2],
			[4, CLERK, null]
		]
		for (const [n, role, harbour] of roles) {
			person.run(n, `p${n}`, `p${n}`, `p${n}@varrow.example`, `p${n}@varrow.example`, harbour)
			store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(n, role)
		}
		const row = store.db.prepare(
			'INSERT INTO t3 (made_at, changed_at, c20, c20k, c21, c22, c23, c24) VALUES (0, 0, ?, ?, ?, ?, ?, ?)'
		)
		for (let i = 0; i < ROWS; i++) {
			const day = new Date(Date.UTC(2025, 0, 1) + ((i * 7919) % 1460) * 86_400_000).toISOString().slice(0, 10)
			row.run(`M-${i}`, `m-${i}`, (i % 4) + 1, day, (i * 31) % 120, (i * 17) % 50_000)
		}
	})()
	const table = getTable(store.workspace().catalogue, MOORINGS)
	createIndex(store.db, table, getColumn(table, 22))
	while (takeStatistics(store));
	return store
}

function times(work: () => unknown): number[] {
	return Array.from({ length: RUNS }, () => time(work))
}
