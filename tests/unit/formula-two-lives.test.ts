import { expect, test } from 'vitest'
import { readStoredRow, storeEnv } from '$lib/server/store/stored-row.ts'
import type { Store } from '$lib/server/store/store.ts'
import { writeFormula } from '../support/formula-generator.ts'
import { ITEMS, makeWorld, NOW } from '../support/formula-world.ts'
import { randomFrom } from '../../demo/random.ts'
import { raw, sql } from '$lib/core/sql/sql.ts'
import { getTable } from '$lib/core/model/table.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { compileCondition, compileError, compileValue, FormulaTooLong } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { evaluate, isTrue } from '$lib/core/formula/evaluate/evaluate.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { ERROR_NAMES, isErrorValue, type Expr, type Value } from '$lib/core/model/formula.ts'

/** How many formulas; the long run asks for more. Each is worked out on every row. */
const COUNT = Number(process.env['TIN_SHED_FORMULAS'] ?? 2000)
const SEED = Number(process.env['TIN_SHED_SEED'] ?? 20261123)
const ROWS = 12

const moment = { today: '2026-11-23', now: new Date(NOW).toISOString() }

test(`generated formulas give the same in the database and in TypeScript (seed ${SEED})`, () => {
	const random = randomFrom(SEED)
	const store = makeWorld(random, ROWS)
	const seen = { worked: 0, errors: 0, blanks: 0 }
	for (let i = 0; i < COUNT; i++) {
		const kind = random.pick(['number', 'text', 'date', 'yesno'] as const)
		const formula = writeFormula(random, kind, 1 + random.below(4))
		const { expr } = check(formula, scopeOf(store))
		if (!expr) continue
		const queried = query(store, expr)
		if (!queried) continue
		seen.worked++
		const evaluated = evaluateAll(store, expr)
		for (const value of evaluated) if (isErrorValue(value)) seen.errors++
		seen.blanks += evaluated.filter((value) => value === null).length
		expect(queried.values, formula).toEqual(evaluated.map(toShown))
		if (queried.holds) expect(queried.holds, formula).toEqual(evaluated.map(isTrue))
	}
	// The generator must really reach what it is for.
	expect(seen.worked).toBeGreaterThan(COUNT / 2)
	expect(seen.errors).toBeGreaterThan(COUNT / 10)
	expect(seen.blanks).toBeGreaterThan(COUNT / 10)
})

/** What longer runs found, kept here so that each run asks it. */
test.each([
	'COUNT(FILTER(kids; k > this.a)) / COUNT(kids)',
	'COUNT(kids) / 2',
	'(COUNT(kids) + 1) / (COUNT(kids) + 3) * 100',
	'LEN(t) / LEN("three")',
	'COUNT(kids) / COUNT(kids) ^ 2',
	'COUNT(FILTER(kids; of = this AND k > 0))'
])('%s', (formula) => {
	const store = makeWorld(randomFrom(SEED), ROWS)
	const { expr, issues } = check(formula, scopeOf(store))
	if (!expr) throw new Error(issues[0]?.message)
	const evaluated = evaluateAll(store, expr)
	expect(query(store, expr)?.values).toEqual(evaluated.map(toShown))
	expect(new Set(evaluated).size).toBeGreaterThan(1)
})

function scopeOf(store: Store) {
	const { catalogue } = store.workspace()
	return { catalogue, rows: [getTable(catalogue, ITEMS)], me: false }
}

function query(store: Store, expr: Expr): { values: unknown[]; holds: boolean[] | undefined } | undefined {
	const folded = fold(expr, moment)
	try {
		const error = compileError(folded, newContext('r', moment)) ?? raw('NULL')
		const value = compileValue(folded, newContext('r', moment))
		const condition = expr.type.kind === 'yesno' ? compileCondition(folded, newContext('r', moment)) : raw('NULL')
		const rows = store.select(sql`SELECT ${value}, ${error}, (${condition}) IS TRUE FROM t${ITEMS} AS r ORDER BY r.n`)
		const values = rows.map((row) => (row[1] === null ? toShown(fromSql(row[0], expr)) : ERROR_NAMES[Number(row[1])]))
		return { values, holds: expr.type.kind === 'yesno' ? rows.map((row) => row[2] === 1) : undefined }
	} catch (error) {
		if (error instanceof FormulaTooLong) return undefined
		throw new Error(`Cannot run a generated formula: ${String(error)}`, { cause: error })
	}
}

function evaluateAll(store: Store, expr: Expr): Value[] {
	const table = getTable(store.workspace().catalogue, ITEMS)
	const numbers = store.db.prepare(`SELECT n FROM t${ITEMS} ORDER BY n`).pluck().all() as number[]
	return numbers.map((n) => {
		const row = readStoredRow(store, table, n)
		if (!row) throw new Error(`Expected row "${n}" to be there`)
		return evaluate(expr, { rows: [row], ...moment, ...storeEnv(store) })
	})
}

function fromSql(value: unknown, expr: Expr): Value {
	return expr.type.kind === 'yesno' && value !== null ? value === 1 : (value as Value)
}

/** Numbers are compared to the last bit; −0 and 0 are one number. */
function toShown(value: Value): unknown {
	if (isErrorValue(value)) return ERROR_NAMES[value.errorCode]
	return value === 0 ? 0 : value
}
