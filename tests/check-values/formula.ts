/**
 * Works check values out in both lives: as SQL over a table made for the row, and in TypeScript on that row.
 */
import type { CellChange } from '$lib/core/query/change.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { compileError, compileValue } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { evaluate } from '$lib/core/formula/evaluate/evaluate.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { ERROR_NAMES, isErrorValue, type Expr, type Value } from '$lib/core/model/formula.ts'
import { raw, sql } from '$lib/core/sql/sql.ts'
import { readTime } from '$lib/core/table/read-time.ts'
import { getTable } from '$lib/core/model/table.ts'
import type { ColumnEntry, WorkspaceDocument } from '$lib/core/workspace/document.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readStoredRow, storeEnv } from '$lib/server/store/stored-row.ts'
import type { Store } from '$lib/server/store/store.ts'
import type { RowResult } from './result.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

type Given = null | number | string | boolean | { date: string }
type Outcome =
	null | number | string | boolean | { date: string } | { datetime: string } | { time: string } | { error: string }

export interface FormulaRow {
	readonly id: string
	readonly formula: string
	readonly names?: Record<string, Given | Given[]>
	readonly expected: Outcome
	readonly alsoAccept?: Outcome[]
	readonly errorKindStrict?: boolean
}

const NOW = Date.parse('2026-11-23T12:00:00Z')
const OWN = 2
const FIRST_SET = 3

export function checkFormulaRow(row: FormulaRow): RowResult {
	const wanted = [row.expected, ...(row.alsoAccept ?? [])]
	// A blank name could be of any type: it holds if it holds as a number or as a text.
	const tries = (['decimal', 'text'] as const).map((blankType) => outcomesOf(row, blankType))
	const short = tries.every(({ outcomes, refused }) =>
		outcomes.some((outcome) => !wanted.some((each) => isSame(outcome, each, refused)))
	)
	const got = JSON.stringify(tries[0]?.outcomes)
	return {
		id: row.id,
		short: short ? `${row.formula} gives ${got}, expected ${JSON.stringify(row.expected)}` : undefined
	}
}

function outcomesOf(row: FormulaRow, blankType: 'decimal' | 'text'): { outcomes: Outcome[]; refused: boolean } {
	const names = Object.entries(row.names ?? {})
	const store = openScratch({ now: NOW, tables: tablesFor(names, blankType) })
	const n = fill(store, names)
	const { catalogue } = store.workspace()
	const { expr, issues } = check(toValues(row), { catalogue, rows: [getTable(catalogue, OWN)], me: false })
	const outcomes = expr ? bothLives(store, expr, n) : [{ error: issues[0]?.code ?? '' }]
	store.db.close()
	return { outcomes, refused: expr === undefined }
}

/** A list is a set of rows here; where the formula does not filter them, it means their values. */
function toValues({ formula, names }: FormulaRow): string {
	if (formula.includes('FILTER(')) return formula
	const lists = Object.entries(names ?? {}).filter(([, value]) => Array.isArray(value))
	return lists.reduce((text, [name]) => text.replace(new RegExp(`\\b${name}\\b`, 'g'), `${name}.${name}`), formula)
}

/** Single names become columns of one row; a list becomes a child table whose label column has the list's name. */
function tablesFor(
	names: readonly [string, Given | Given[]][],
	blank: 'decimal' | 'text'
): WorkspaceDocument['tables'] {
	const single = names.filter(([, value]) => !Array.isArray(value))
	const columns = single.map(([name, value], i): ColumnEntry => ({
		id: 100 + i,
		name,
		type: typeOf(value as Given, blank)
	}))
	const own = {
		id: OWN,
		name: 'own',
		keepers: [KEEPER],
		label: 99,
		columns: [{ id: 99, name: 'own label', type: 'text' as const }, ...columns]
	}
	const sets = names.filter(([, value]) => Array.isArray(value))
	return [own, ...sets.map(([name, values], i) => setTable(name, values as Given[], i))]
}

function setTable(name: string, values: readonly Given[], i: number): WorkspaceDocument['tables'][number] {
	const first = values.find((value) => value !== null) ?? 0
	const label = 1000 + i * 2
	return {
		id: FIRST_SET + i,
		name: `set ${i}`,
		keepers: [KEEPER],
		label,
		columns: [
			{ id: label, name, type: typeOf(first) },
			{ id: label + 1, name: 'of', type: 'reference', to: OWN, reverseName: name }
		]
	}
}

function typeOf(value: Given, blank: 'decimal' | 'text' = 'decimal'): ColumnEntry['type'] {
	if (typeof value === 'number') return 'decimal'
	if (typeof value === 'boolean') return 'yes/no'
	if (value !== null && typeof value === 'object') return 'date'
	return value === null ? blank : 'text'
}

function fill(store: Store, names: readonly [string, Given | Given[]][]): number {
	const add = (table: number, cells: readonly CellChange[]) =>
		changeRows(store, [{ kind: 'add', table, cells }], { actor: { person: KEEPER }, now: NOW, through: 'grid' })[0]
			?.row ?? ''
	const plain = (value: Given) => (value !== null && typeof value === 'object' ? value.date : value)
	const single = names.filter(([, value]) => !Array.isArray(value))
	const row = add(
		OWN,
		single.map(([, value], i) => ({ column: 100 + i, value: plain(value as Given) }))
	)
	const sets = names.filter(([, value]) => Array.isArray(value))
	sets.forEach(([, values], i) => {
		const label = 1000 + i * 2
		for (const value of values as Given[]) {
			add(FIRST_SET + i, [
				{ column: label, value: plain(value) },
				{ column: label + 1, value: { id: row } }
			])
		}
	})
	return store.ids.fromId(OWN, row) ?? 0
}

/** The value by SQL and the value by TypeScript. */
export function bothLives(store: Store, expr: Expr, n: number): Outcome[] {
	const table = getTable(store.workspace().catalogue, OWN)
	const moment = { today: '2026-11-23', now: new Date(NOW).toISOString() }
	const folded = fold(expr, moment)
	const ctx = newContext('r', moment)
	const error = compileError(folded, ctx) ?? raw('NULL')
	const [found] = store.select(sql`SELECT ${compileValue(folded, ctx)}, ${error} FROM t${OWN} AS r WHERE r.n = ${n}`)
	const queried =
		found?.[1] === null ? toOutcome(fromSql(found[0], expr), expr) : { error: ERROR_NAMES[Number(found?.[1])] ?? '?' }
	const row = readStoredRow(store, table, n)
	if (!row) throw new Error('Expected the row of a check value to be there')
	const evaluated = evaluate(expr, { rows: [row], ...moment, ...storeEnv(store) })
	return [queried, toOutcome(evaluated, expr)]
}

function fromSql(value: unknown, expr: Expr): Value {
	if (expr.type.kind === 'yesno' && value !== null) return value === 1
	return value as Value
}

function toOutcome(value: Value, expr: Expr): Outcome {
	if (isErrorValue(value)) return { error: ERROR_NAMES[value.errorCode] }
	if (expr.type.kind === 'date' && typeof value === 'string') return { date: value }
	if (expr.type.kind === 'datetime' && typeof value === 'string') return { datetime: value }
	return value
}

function isSame(got: Outcome, wanted: Outcome, refused: boolean): boolean {
	if (wanted !== null && typeof wanted === 'object' && 'error' in wanted) {
		if (got === null || typeof got !== 'object' || !('error' in got)) return false
		return refused || wanted.error === 'any' || got.error === wanted.error
	}
	if (typeof got === 'number' && wanted !== null && typeof wanted === 'object' && 'time' in wanted)
		return isSame(got, readTime(wanted.time) ?? null, refused)
	if (typeof got === 'number' && typeof wanted === 'number') {
		return Math.abs(got - wanted) <= 1e-9 * Math.max(1, Math.abs(wanted))
	}
	return JSON.stringify(got) === JSON.stringify(wanted)
}
