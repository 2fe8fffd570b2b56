/** Whether a formula gives an amount of money, by what it is made of: `Quantity * Each` does where one of them is money. */
import type { Expr } from '../../model/formula.ts'
import type { Column } from '../../model/table.ts'

/** Where a money column names no unit of its own. */
const DEFAULT_UNIT = '£'
/** Functions that give an amount of what they are given. */
const KEEPING: ReadonlySet<string> = new Set([
	'ABS',
	'ROUND',
	'ROUNDUP',
	'ROUNDDOWN',
	'MROUND',
	'CEILING',
	'FLOOR',
	'TRUNC'
])

/** The unit of the amount; undefined for any other number. Money by money is a ratio, and none. */
export function moneyOf(expr: Expr): string | undefined {
	switch (expr.kind) {
		case 'field':
			return moneyOfColumn(expr.column)
		case 'me':
			return expr.column && moneyOfColumn(expr.column)
		case 'arithmetic': {
			const [left, right] = [moneyOf(expr.left), moneyOf(expr.right)]
			if (expr.op === '+' || expr.op === '-') return left ?? right
			if (expr.op === '*') return left === undefined || right === undefined ? (left ?? right) : undefined
			return expr.op === '/' && right === undefined ? left : undefined
		}
		case 'negate':
			return moneyOf(expr.arg)
		case 'if':
			return moneyOf(expr.then) ?? moneyOf(expr.else)
		case 'iferror':
			return moneyOf(expr.arg) ?? moneyOf(expr.else)
		case 'each':
			return moneyOf(expr.item)
		case 'first':
			return moneyOf(expr.set)
		case 'list':
			return firstMoney(expr.items)
		case 'aggregate':
			return expr.name === 'COUNT' || expr.name === 'COUNTA' ? undefined : firstMoney(expr.args)
		case 'call':
			return KEEPING.has(expr.fn.name) ? firstMoney(expr.args) : undefined
		default:
			return undefined
	}
}

function moneyOfColumn({ type, unit, computed }: Column): string | undefined {
	if (type === 'money') return unit ?? DEFAULT_UNIT
	return computed?.expr.type.kind === 'number' && unit === undefined ? moneyOf(computed.expr) : undefined
}

function firstMoney(all: readonly Expr[]): string | undefined {
	return all.map(moneyOf).find((unit) => unit !== undefined)
}
