/** A formula worked out on every row of a large table, against the same written by hand as SQL. */
import { check, checkCondition } from '../src/lib/core/formula/check/check.ts'
import { compileCondition, compileValue } from '../src/lib/core/formula/sql/compile.ts'
import { newContext } from '../src/lib/core/formula/sql/sql-context.ts'
import { fold } from '../src/lib/core/formula/evaluate/fold.ts'
import { sql, type Sql } from '../src/lib/core/sql/sql.ts'
import { getTable } from '../src/lib/core/model/table.ts'
import { KEEPER, openScratch } from '../tests/support/scratch-store.ts'
import type { Store } from '../src/lib/server/store/store.ts'

const ROWS = 3_000_000
const RUNS = 5
const TABLE = 2
const TODAY = '2026-11-23'
const MOMENT = { today: TODAY, now: `${TODAY}T12:00:00.000Z` }

const CASES = [
	{
		name: 'a two-step IF: `IF(depth > 5; IF(chain > 20; "deep, heavy"; "deep"); "shallow")`',
		formula: 'IF(depth > 5; IF(chain > 20; "deep, heavy"; "deep"); "shallow")',
		byHand: `CASE WHEN c10 > 50 THEN CASE WHEN c11 > 20 THEN 'deep, heavy' ELSE 'deep' END ELSE 'shallow' END`,
		condition: false,
		bound: 1.3
	},
	{
		name: 'a condition on a date, solved for it: `EDATE(done; 12) < TODAY()`',
		formula: 'EDATE(done; 12) < TODAY()',
		byHand: `c12 < '2025-11-23'`,
		condition: true,
		bound: 1.3
	}
]

export function measureFormula() {
	const store = fill()
	const cases = CASES.map(({ name, formula, byHand, condition, bound }) => {
		const ours = compile(store, formula, condition)
		const hand: Sql = { text: byHand, params: [] }
		const times = Array.from(
			{ length: RUNS },
			() => [time(store, ours, condition), time(store, hand, condition)] as const
		)
		return { name, bound, ours: middle(times.map(([own]) => own)), byHand: middle(times.map(([, other]) => other)) }
	})
	store.db.close()
	return { rows: ROWS, cases }
}

function fill(): Store {
	const store = openScratch({
		now: 0,
		tables: [
			{
				id: TABLE,
				name: 'soundings',
				keepers: [KEEPER],
				label: 11,
				columns: [
					{ id: 10, name: 'depth', type: 'decimal', places: 1 },
					{ id: 11, name: 'chain', type: 'whole number' },
					{ id: 12, name: 'done', type: 'date' }
				]
			}
		]
	})
	store.db.exec(`
		WITH RECURSIVE i (n) AS (SELECT 0 UNION ALL SELECT n + 1 FROM i WHERE n < ${ROWS - 1})
		INSERT INTO t${TABLE} (made_at, changed_at, c10, c11, c12)
		SELECT 0, 0, n % 97, n % 33, date('2024-01-01', (n % 1000) || ' days') FROM i`)
	return store
}

function compile(store: Store, formula: string, condition: boolean): Sql {
	const { catalogue } = store.workspace()
	const scope = { catalogue, rows: [getTable(catalogue, TABLE)], me: false }
	const { expr, issues } = condition ? checkCondition(formula, scope) : check(formula, scope)
	if (!expr) throw new Error(issues[0]?.message)
	const folded = fold(expr, MOMENT)
	return condition ? compileCondition(folded, newContext('r', MOMENT)) : compileValue(folded, newContext('r', MOMENT))
}

function time(store: Store, what: Sql, condition: boolean): number {
	const started = performance.now()
	store.select(
		condition
			? sql`SELECT count(*) FROM t${TABLE} AS r WHERE ${what}`
			: sql`SELECT sum(length(${what})) FROM t${TABLE} AS r`
	)
	return performance.now() - started
}

function middle(values: readonly number[]): number {
	return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0
}
