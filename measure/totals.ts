/** A page with three kept totals, over few and many child rows, against hand-written SQL that reads the same places. */
import { atMost, planPage } from '../src/lib/core/query/plan.ts'
import { getColumn, getTable } from '../src/lib/core/model/table.ts'
import { KEEPER, openScratch } from '../tests/support/scratch-store.ts'
import { standingOf } from '../src/lib/server/rights/rights-of-actor.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import { createIndex } from '../src/lib/server/store/schema.ts'
import { takeStatistics } from '../src/lib/server/derived/table-statistics.ts'
import { setFormula } from '../src/lib/server/structure/tables.ts'
import { median, paired } from './timing.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const [MOORINGS, INSPECTIONS] = [2, 3]
const RUNS = 400
const FORMULAS = ['COUNT(inspections)', 'COUNT(FILTER(inspections; verdict = "Replace"))', 'MAX(inspections.done)']

/** Child rows in all, and of each parent. */
const SIZES = [
	{ rows: 3_000, each: 3 },
	{ rows: 3_000_000, each: 3 },
	{ rows: 3_000_000, each: 3_000 }
]

export interface TotalsCase {
	readonly name: string
	readonly ours: number
	readonly byHand: number
	/** Counted from the children with the best index, without kept totals. */
	readonly counted: number
}

export function measureTotals(): readonly TotalsCase[] {
	return SIZES.flatMap(({ rows, each }) => {
		const store = fill(rows, each)
		const name = `${rows.toLocaleString('en-GB')} child rows, ${each.toLocaleString('en-GB')} of each`
		const cases = [
			{ name, sort: 20, order: 'r.c20k, r.n', where: 'r.c20k IS NOT NULL' },
			{ name: `${name}, ordered by the second total`, sort: 31, order: 'r.c31t0n DESC, r.n DESC', where: '1' }
		].map((one) => measurePage(store, one))
		store.db.close()
		return cases
	})
}

function measurePage(
	store: Store,
	{ name, sort, order, where }: { name: string; sort: number; order: string; where: string }
): TotalsCase {
	const { catalogue } = store.workspace()
	const table = getTable(catalogue, MOORINGS)
	const { rights } = standingOf(store, { person: KEEPER }, NOW)
	const columns = [20, 30, 31, 32].map((id) => getColumn(table, id))
	const by = { column: getColumn(table, sort), descending: sort === 31 }
	const [branch] = planPage({ table, columns, where: [], sort: by }, { catalogue, rights }).branches
	if (!branch) throw new Error('Expected the plan to have a branch')
	const query = atMost(branch, 50)
	const ours = store.prepare(query.text).raw()
	const byHand = store.db
		.prepare(
			`SELECT r.n, r.rev, r.c20, r.c30t0n, r.c31t0n, r.c32t0x FROM t2 r WHERE ${where} ORDER BY ${order} LIMIT 50`
		)
		.raw()
	const counted = store.db
		.prepare(
			`SELECT r.n, r.rev, r.c20,
				(SELECT count(*) FROM t3 k WHERE k.c40 = r.n),
				(SELECT count(*) FROM t3 k WHERE k.c40 = r.n AND k.c41 = 2),
				(SELECT max(k.c42) FROM t3 k WHERE k.c40 = r.n)
			FROM t2 r WHERE r.c20k IS NOT NULL ORDER BY r.c20k, r.n LIMIT 50`
		)
		.raw()
	const times = paired(
		() => ours.all(...query.params),
		() => byHand.all(),
		RUNS
	)
	const slow = Array.from({ length: 5 }, () => {
		const started = performance.now()
		counted.all()
		return performance.now() - started
	})
	return { name, ...times, counted: median(slow) }
}

function fill(rows: number, each: number): Store {
	const store = openScratch({
		now: NOW,
		tables: [
			{
				id: MOORINGS,
				name: 'moorings',
				keepers: [KEEPER],
				label: 20,
				columns: [
					{ id: 20, name: 'code', type: 'text' },
					...FORMULAS.map((_formula, i) => ({
						id: 30 + i,
						name: `total ${i}`,
						type: 'computed' as const,
						formula: '0'
					}))
				]
			},
			{
				id: INSPECTIONS,
				name: 'inspections',
				keepers: [KEEPER],
				label: 43,
				columns: [
					{ id: 40, name: 'mooring', type: 'reference', to: MOORINGS },
					{ id: 41, name: 'verdict', type: 'choice', choices: ['Fine', 'Replace'] },
					{ id: 42, name: 'done', type: 'date' },
					{ id: 43, name: 'note', type: 'text' }
				]
			}
		]
	})
	const parents = Math.max(50, rows / each)
	const count = (most: number) => `WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < ${most})`
	store.db.exec(`
		${count(parents)}
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k) SELECT n, 0, 0, printf('M-%07d', n), printf('m-%07d', n) FROM i;
		${count(rows)}
		INSERT INTO t3 (made_at, changed_at, c40, c41, c42)
		SELECT 0, 0, n % ${parents} + 1, (n * 7919) % 5 / 4 + 1, date('2020-01-01', (n * 31 % 2000) || ' days') FROM i`)
	// The formulas come after the rows, so that the totals are filled at once.
	FORMULAS.forEach((formula, i) =>
		setFormula(store, { table: MOORINGS, column: 30 + i, formula, actor: { person: KEEPER }, now: NOW })
	)
	createIndex(
		store.db,
		getTable(store.workspace().catalogue, MOORINGS),
		getColumn(getTable(store.workspace().catalogue, MOORINGS), 31)
	)
	while (takeStatistics(store));
	return store
}
