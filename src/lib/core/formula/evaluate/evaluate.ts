/**
 * Works a typed formula out on one row, in plain TypeScript.
 *
 * Agrees with `compile.ts` on every input: `tests/unit/formula-two-lives.test.ts`. Errors are values here; nothing is thrown
 * for a row's content. Reads no clock: the environment brings the day and the moment.
 */
import { compareCodePoints, textKey } from '../../text/key.ts'
import { scaleOf } from '../../table/storage.ts'
import type { Column, BackReference, Table } from '../../model/table.ts'
import { showDuration } from '../../table/show-times.ts'
import { unreachable } from '../../unreachable.ts'
import { call } from '../functions/define.ts'
import { compensatedSum, numberText, power } from '../../number/arithmetic.ts'
import {
	BAD_NUMBER,
	BAD_VALUE,
	DIV_ZERO,
	isErrorValue,
	NOT_AVAILABLE,
	type ArithmeticOp,
	type CompareOp,
	type Expr,
	type ErrorValue,
	type Given,
	type Plain,
	type Value
} from '../../model/formula.ts'

export interface RowValues {
	readonly n: number
	/** The value that formulas see; references as the number of the row they point to. */
	value(column: Column): Value
	/** What a computed column shows, where that is not worked out from the values above: for who does not see them all. */
	worked?(column: Column): Value
}

export interface Env {
	/** The rows in reach, by level. */
	readonly rows: readonly RowValues[]
	readonly me?: RowValues
	/** The workspace's date, or the person's own. */
	readonly today: string
	/** The moment, as an ISO instant in UTC. */
	readonly now: string
	findRow(table: Table, n: number): RowValues | undefined
	/** The rows that point to row `n`, in the order in which they were added. */
	childrenOf(backReference: BackReference, n: number): readonly RowValues[]
	isGranted?(table: Table, n: number): boolean
}

/** What a checked formula gives on values: a plain value, blank, or an error value; never throws for what stands in cells. */
export function evaluate(expr: Expr, env: Env): Value {
	switch (expr.kind) {
		case 'literal':
			return expr.value
		case 'this':
			return rowAt(env, expr.level).n
		case 'me':
			if (!env.me) return null
			return expr.column ? cellOf(env.me, expr.column, env) : env.me.n
		case 'field':
			return evaluateField(expr, env)
		case 'aggregate':
			return evaluateAggregate(expr, env)
		case 'arithmetic':
			return withNumbers(expr.left, expr.right, env, (a, b) => calculate(expr.op, a, b))
		case 'negate':
			return withNumbers(expr.arg, undefined, env, (a) => -a)
		case 'join':
			return withPlain([expr.left, expr.right], env, (a, b) => `${a ?? ''}${b ?? ''}`)
		case 'totext':
			return withPlain([expr.arg], env, (value) =>
				expr.arg.type.kind === 'duration' && value !== null ? showDuration(Number(value)) : plainText(value ?? null)
			)
		case 'compare':
			return withPlain([expr.left, expr.right], env, (a, b) => holdsBetween(expr.op, a ?? null, b ?? null))
		case 'in':
			return withPlain([expr.item, ...expr.list], env, (item, ...list) =>
				list.some((each) => holdsBetween('=', item ?? null, each))
			)
		case 'and':
			return withPlain(expr.args, env, (...values) => values.every(isTrue))
		case 'or':
			return withPlain(expr.args, env, (...values) => values.some(isTrue))
		case 'not':
			return withPlain([expr.arg], env, (value) => !isTrue(value ?? null))
		case 'if':
			return withPlain([expr.test], env, (test) => evaluate(isTrue(test ?? null) ? expr.then : expr.else, env))
		case 'iferror': {
			const value = evaluate(expr.arg, env)
			return isErrorValue(value) && (expr.only === 'any' || value.errorCode === 7) ? evaluate(expr.else, env) : value
		}
		case 'iserror': {
			const value = evaluate(expr.arg, env)
			return isErrorValue(value) && (expr.which === 'any' || (value.errorCode === 7) === (expr.which === 'na'))
		}
		case 'errortype': {
			const value = evaluate(expr.arg, env)
			return isErrorValue(value) ? value.errorCode : NOT_AVAILABLE
		}
		case 'istype':
			return isOfType(expr, evaluate(expr.arg, env))
		case 'first':
			return evaluateFirst(expr.set, env)
		case 'isblank':
			return withPlain([expr.arg], env, (value) => value === null || value === '')
		case 'now':
			return expr.what === 'TODAY' ? env.today : env.now
		case 'call':
			return evaluateCall(expr, env)
		case 'granted':
			return env.isGranted?.(expr.table, rowAt(env, 0).n) ?? false
		case 'children':
		case 'filter':
		case 'sort':
		case 'each':
		case 'list':
			throw new Error(`Expected a single value, got the set "${expr.kind}"`)
		default:
			return unreachable(expr, 'evaluate')
	}
}

/** Whether a value counts as yes: errors and blanks do not. */
export function isTrue(value: Value): boolean {
	return value === true || (typeof value === 'number' && value !== 0)
}

/** A value as `&` joins it to a text: numbers in full, TRUE and FALSE; null for a blank. */
export function plainText(value: Plain): string | null {
	if (value === null) return null
	if (typeof value === 'number') return numberText(value)
	if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE'
	return value
}

function rowAt(env: Env, level: number): RowValues {
	const row = env.rows[level]
	if (!row) throw new Error(`Expected a row at level ${level}, got ${env.rows.length} rows`)
	return row
}

function evaluateField(expr: Expr & { kind: 'field' }, env: Env): Value {
	const row = findRowOf(expr.of, env)
	return row === undefined || isErrorValue(row) ? (row ?? null) : cellOf(row, expr.column, env)
}

function cellOf(row: RowValues, column: Column, env: Env): Value {
	if (!column.computed) return row.value(column)
	if (row.worked) return row.worked(column)
	const value = evaluate(column.computed.expr, { ...env, rows: [row] })
	return value === '' ? null : value
}

function findRowOf(of: Expr, env: Env) {
	if (of.kind === 'this') return rowAt(env, of.level)
	const n = evaluate(of, env)
	if (isErrorValue(n)) return n
	if (of.type.kind !== 'row' || typeof n !== 'number') return undefined
	return env.findRow(of.type.table, n)
}

/** Evaluates all parts; the first error among them is the result. */
function withPlain(parts: readonly Expr[], env: Env, use: (...values: Plain[]) => Value): Value {
	const values: Plain[] = []
	for (const part of parts) {
		const value = evaluate(part, env)
		if (isErrorValue(value)) return value
		values.push(value)
	}
	return use(...values)
}

/** Evaluates one or two numbers, blank as 0; a result that is no number is an error. */
function withNumbers(left: Expr, right: Expr | undefined, env: Env, use: (a: number, b: number) => Value): Value {
	return withPlain(right ? [left, right] : [left], env, (a, b) => {
		const result = use(Number(a ?? 0), Number(b ?? 0))
		return typeof result === 'number' && !Number.isFinite(result) ? BAD_NUMBER : result
	})
}

function calculate(op: ArithmeticOp, a: number, b: number): Value {
	switch (op) {
		case '+':
			return a + b
		case '-':
			return a - b
		case '*':
			return a * b
		case '/':
			return b === 0 ? DIV_ZERO : a / b
		case '^':
			return power(a, b) ?? BAD_NUMBER
		default:
			return unreachable(op, 'calculate')
	}
}

function holdsBetween(op: CompareOp, a: Plain, b: Plain): boolean {
	if (op === '<>') return !holdsBetween('=', a, b)
	if (a === null || b === null) return false
	const order = compareValues(a, b)
	switch (op) {
		case '=':
			return order === 0
		case '<':
			return order < 0
		case '<=':
			return order <= 0
		case '>':
			return order > 0
		case '>=':
			return order >= 0
		default:
			return unreachable(op, 'holdsBetween')
	}
}

/** Below nought where `a` comes first; texts whatever their case and accents. */
export function compareValues(a: number | string | boolean, b: number | string | boolean): number {
	if (typeof a === 'string' && typeof b === 'string') return compareCodePoints(textKey(a), textKey(b))
	return Number(a) - Number(b)
}

/** Dates are numbers, as in OpenFormula; an error is neither a number nor a text. */
function isOfType({ which, arg }: Expr & { kind: 'istype' }, value: Value): boolean {
	if (value === null || isErrorValue(value)) return false
	const { kind } = arg.type
	if (kind === 'date' || kind === 'datetime') return which === 'number'
	return typeof value === (which === 'text' ? 'string' : 'number')
}

/** The arguments in their order; the first error among the single ones, or in a list, is the result. */
function evaluateCall(expr: Expr & { kind: 'call' }, env: Env): Value {
	const values: Given[] = []
	for (const arg of expr.args) {
		const value = arg.type.kind === 'set' ? valuesOf(arg, env) : evaluate(arg, env)
		if (isErrorValue(value)) return value
		// A failed value has left the loop above.
		values.push(value as Given)
	}
	return call(expr.fn, values)
}

/** The values of a set in their order: rows in error are left out, an error that is written in a list is the result. */
function valuesOf(set: Expr, env: Env): readonly Plain[] | ErrorValue {
	const values: Plain[] = []
	if (set.kind === 'list') {
		for (const item of set.items) {
			const value = evaluate(item, env)
			if (isErrorValue(value)) return value
			values.push(value)
		}
		return values
	}
	if (set.kind !== 'each') throw new Error(`Expected a set of values, got "${set.kind}"`)
	for (const row of rowsOf(set.rows, env)) {
		const value = evaluate(set.item, atLevel(env, set.level, row))
		if (!isErrorValue(value)) values.push(value)
	}
	return values
}

function evaluateFirst(set: Expr, env: Env): Value {
	const [row] = rowsOf(set.kind === 'each' ? set.rows : set, env)
	if (!row) return null
	return set.kind === 'each' ? evaluate(set.item, atLevel(env, set.level, row)) : row.n
}

function evaluateAggregate(expr: Expr & { kind: 'aggregate' }, env: Env): Value {
	const [first] = expr.args
	if (first && (first.type.kind === 'rows' || first.type.kind === 'set')) return totalOfSet(expr, first, env)
	const values: Plain[] = []
	for (const arg of expr.args) {
		const value = evaluate(arg, env)
		if (!isErrorValue(value)) values.push(value)
		else if (expr.name === 'COUNTA') values.push(value.errorCode)
		else if (expr.name !== 'COUNT') return value
	}
	return total(expr, values, 1)
}

function totalOfSet(expr: Expr & { kind: 'aggregate' }, set: Expr, env: Env): Value {
	if (set.kind !== 'each') return rowsOf(set, env).length
	const values = valuesOf(set, env)
	if (isErrorValue(values)) throw new Error('Expected the rows of a set in error to be left out')
	return total(expr, values, set.item.kind === 'field' ? scaleOf(set.item.column) : 1)
}

/** The rows of a set, in the order in which they were added, or in which they were sorted. */
function rowsOf(set: Expr, env: Env): readonly RowValues[] {
	if (set.kind === 'children') {
		const row = findRowOf(set.of, env)
		return row === undefined || isErrorValue(row) ? [] : env.childrenOf(set.backReference, row.n)
	}
	if (set.kind === 'sort') return sortedRows(set, env)
	if (set.kind !== 'filter') throw new Error(`Expected a set of rows, got "${set.kind}"`)
	return rowsOf(set.rows, env).filter((row) => isTrue(evaluate(set.where, atLevel(env, set.level, row))))
}

/** Blanks and errors come last, whichever way the rest goes; rows of one key in the order in which they were added. */
function sortedRows(set: Expr & { kind: 'sort' }, env: Env): readonly RowValues[] {
	const keyed = rowsOf(set.rows, env).map((row) => {
		const key = evaluate(set.key, atLevel(env, set.level, row))
		return { row, key: isErrorValue(key) ? null : key }
	})
	const sign = set.falling ? -1 : 1
	const order = (a: Plain, b: Plain) => {
		if (a === null || b === null) return Number(a === null) - Number(b === null)
		return sign * Math.sign(compareValues(a, b))
	}
	return keyed.sort((a, b) => order(a.key, b.key) || a.row.n - b.row.n).map(({ row }) => row)
}

function atLevel(env: Env, level: number, row: RowValues): Env {
	return { ...env, rows: [...env.rows.slice(0, level), row] }
}

function total(expr: Expr & { kind: 'aggregate' }, all: readonly Plain[], scale: number): Value {
	const values = all.filter((value) => value !== null)
	const numbers = () => values.map(Number)
	switch (expr.name) {
		case 'COUNT':
		case 'COUNTA':
			return values.length
		case 'SUM':
			return finite(sum(numbers(), scale) / scale)
		case 'AVERAGE':
			return values.length === 0 ? null : finite(sum(numbers(), scale) / values.length / scale)
		case 'MIN':
			return extreme(values, -1)
		case 'MAX':
			return extreme(values, 1)
		default:
			return unreachable(expr.name, 'total')
	}
}

/** Columns of fixed places are summed as whole numbers, exactly. */
function sum(values: readonly number[], scale: number): number {
	if (scale === 1) return compensatedSum(values)
	return values.reduce((all, value) => all + Math.round(value * scale), 0)
}

function extreme(values: readonly NonNullable<Plain>[], sign: 1 | -1): Value {
	let best: NonNullable<Plain> | null = null
	for (const value of values) if (best === null || Math.sign(compareValues(value, best)) === sign) best = value
	return best
}

function finite(value: number): Value {
	return Number.isFinite(value) ? value : BAD_VALUE
}
