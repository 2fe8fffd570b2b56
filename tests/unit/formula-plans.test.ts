import { describe, expect, test } from 'vitest'
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { sql } from '$lib/core/sql/sql.ts'
import { getTable } from '$lib/core/model/table.ts'
import { ITEMS, makeWorld, NOW } from '../support/formula-world.ts'
import { randomFrom } from '../../demo/random.ts'

const moment = { today: '2026-11-23', now: new Date(NOW).toISOString() }
const store = makeWorld(randomFrom(1), 5)
for (const column of [20, 23, 24, 27]) {
	store.db.exec(`CREATE INDEX plan_${column} ON t${ITEMS} (c${column}${column === 20 ? 'k' : ''}, n)`)
}

function planOf(formula: string): string {
	const { catalogue } = store.workspace()
	const { expr, issues } = checkCondition(formula, { catalogue, rows: [getTable(catalogue, ITEMS)], me: false })
	if (!expr) throw new Error(issues[0]?.message)
	const condition = compileCondition(fold(expr, moment), newContext('r', moment))
	const rows = store.select(sql`EXPLAIN QUERY PLAN SELECT r.n FROM t${ITEMS} AS r WHERE ${condition}`)
	return rows.map((row) => String(row[3])).join('\n')
}

describe('comparisons keep their index, in positive and in negated position', () => {
	test.each([
		['text, without regard to case', 't = "Varrow"', 'plan_20'],
		['a whole number', 'w > 5', 'plan_23'],
		['the constant on the left', '5 >= w', 'plan_23'],
		['money, against a number of the formula', 'm > 500.5', 'plan_24'],
		['a date, against a folded constant', 'd < TODAY() + 7', 'plan_27'],
		['negated, with blanks let in', 'not (d < TODAY())', 'plan_27'],
		['negated twice', 'not (t <> "Varrow")', 'plan_20'],
		['negated, the constant on the left', 'not (5 >= w)', 'plan_23'],
		['one of several', 't in ("Varrow"; "Ness Hythe")', 'plan_20'],
		['some months after a date, solved for it', 'EDATE(d; 12) < TODAY()', 'plan_27'],
		['days after a date, solved for it', 'TODAY() >= d + 30', 'plan_27'],
		['the days between, solved for the date', 'd - TODAY() > 14', 'plan_27'],
		['the year of a date, solved for it', 'YEAR(d) = 2026', 'plan_27'],
		['working days after a date, with a holiday', 'WORKDAY(d; 3; {"2026-11-24"}) = TODAY()', 'plan_27'],
		['either of two columns', 'd < TODAY() or w = 3', 'plan_23']
	])('%s: %s', (_what, formula, index) => {
		const plan = planOf(formula)
		expect(plan).toContain(index)
		expect(plan).not.toContain('SCAN r')
	})

	test('a plan without an index is told apart', () => {
		expect(planOf('t <> "Varrow"')).toContain('SCAN r')
	})
})
