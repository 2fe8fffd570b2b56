/** Totals over sets and values, and those with criteria, which become a filter with a total over it. */
import { isIsoDate } from '../../schedule/calendar.ts'
import type { AggregateName, CompareOp, Expr, Span, Syntax, Type } from '../../model/formula.ts'
import { argumentAt, countArguments, type Call, type CheckCall } from './check-call.ts'
import { describe, isMany } from './column-type.ts'
import { BLANK, compare, DATE, NUMBER, Refused, TEXT, toLabels, YESNO, type Part } from './convert.ts'
import { FITS, hasWildcards } from '../functions/wildcards.ts'
import * as issue from '../syntax/issues.ts'
import { DIV_ZERO } from '../../model/formula.ts'
import { isSameTree } from '../syntax/walk.ts'

export function findTotal(name: string): CheckCall | undefined {
	return TOTALS.get(name)
}

const TOTALS: ReadonlyMap<string, CheckCall> = new Map<string, CheckCall>([
	['COUNT', (call) => checkTotal('COUNT', call)],
	['COUNTA', (call) => checkTotal('COUNTA', call)],
	['SUM', (call) => checkTotal('SUM', call)],
	['MIN', (call) => checkTotal('MIN', call)],
	['MAX', (call) => checkTotal('MAX', call)],
	['AVERAGE', (call) => checkTotal('AVERAGE', call)],
	['COUNTBLANK', checkCountBlank],
	['COUNTIF', (call) => checkIf('COUNTA', call, 2)],
	['COUNTIFS', (call) => checkIfs('COUNTA', call, 0)],
	['SUMIF', (call) => checkIf('SUM', call, 3)],
	['SUMIFS', (call) => checkIfs('SUM', call, 1)],
	['AVERAGEIF', (call) => unlessNone(checkIf('AVERAGE', call, 3))],
	['AVERAGEIFS', (call) => unlessNone(checkIfs('AVERAGE', call, 1))],
	['MINIFS', (call) => checkIfs('MIN', call, 1)],
	['MAXIFS', (call) => checkIfs('MAX', call, 1)]
])

function checkTotal(name: AggregateName, call: Call): Expr {
	const { tree } = call
	countArguments(tree, 1, 255)
	const parts = tree.args.flatMap((arg) => spread(call.part(arg, name)))
	const args = parts.map((part) => toTotalled(name, part, call))
	if (args.some((arg) => isMany(arg.type)) && args.length > 1) {
		throw new Refused(issue.unreadable(`${name} takes one set, or several single values, not both.`, tree.span))
	}
	return { kind: 'aggregate', name, args, type: totalType(name, args) }
}

/** A list stands for its values. */
function spread(part: Part): readonly Part[] {
	return part.expr.kind === 'list' ? part.expr.items.map((expr) => ({ ...part, expr })) : [part]
}

function totalType(name: AggregateName, args: readonly Expr[]): Type {
	if (name === 'COUNT' || name === 'COUNTA') return NUMBER
	const of = args.map((arg) => (arg.type.kind === 'set' ? arg.type.of : arg.type)).find((type) => type.kind !== 'blank')
	if (of?.kind === 'duration') return of
	return (name === 'MIN' || name === 'MAX') && (of?.kind === 'date' || of?.kind === 'datetime') ? of : NUMBER
}

function toTotalled(name: AggregateName, part: Part, call: Call): Expr {
	const { expr, span } = part
	const { type } = expr
	if (type.kind === 'rows') {
		if (name === 'COUNT' || name === 'COUNTA') return expr
		return toTotalled(name, { ...part, expr: labelsOf(expr, call) }, call)
	}
	const of = type.kind === 'set' ? type.of.kind : type.kind
	if (name === 'COUNTA') return expr
	const isNumber = of === 'number' || of === 'duration' || of === 'blank'
	// COUNT counts numbers: a single value of another kind adds nothing.
	if (name === 'COUNT' && type.kind !== 'set' && !isNumber && of !== 'date') return BLANK
	const isDay = of === 'date' || of === 'datetime'
	if (isNumber || (isDay && name !== 'SUM' && name !== 'AVERAGE')) return expr
	const remedy = name === 'COUNT' ? 'numbers or rows (COUNTA counts everything that is not blank)' : 'numbers'
	throw new Refused(issue.wrongType(name, remedy, describe(type.kind === 'set' ? type.of : type), span))
}

function labelsOf(expr: Expr, { scope }: Call): Expr {
	return expr.type.kind === 'rows' ? toLabels(expr, expr.type.table, scope.catalogue, scope.rows.length) : expr
}

/** How many there are, less those that are not blank. */
function checkCountBlank(call: Call): Expr {
	countArguments(call.tree, 1, 255)
	const parts = call.tree.args.flatMap((arg) => spread(call.part(arg, 'COUNTBLANK')))
	const [first] = parts
	const set = first && labelsOf(first.expr, call)
	if (parts.length === 1 && set?.kind === 'each') {
		const rows: Expr = { kind: 'aggregate', name: 'COUNT', args: [set.rows], type: NUMBER }
		const filled: Expr = { kind: 'aggregate', name: 'COUNTA', args: [set], type: NUMBER }
		return { kind: 'arithmetic', op: '-', left: rows, right: filled, type: NUMBER }
	}
	const one: Expr = { kind: 'literal', value: 1, type: NUMBER }
	const blanks = parts.map(({ expr }): Expr => ({
		kind: 'if',
		test: { kind: 'isblank', arg: expr, type: YESNO },
		then: one,
		else: BLANK,
		type: NUMBER
	}))
	return { kind: 'aggregate', name: 'COUNT', args: blanks, type: NUMBER }
}

interface Criterion {
	readonly set: Part
	readonly wanted: Part
	readonly span: Span
}

/** `SUMIF(set; criterion; [summed])`. */
function checkIf(name: AggregateName, call: Call, most: 2 | 3): Expr {
	const { tree } = call
	countArguments(tree, 2, most)
	const criterion = criterionAt(call, 0)
	const totalled = tree.args[2] ? valuesAt(call, tree.args[2]) : criterion.set
	return totalWhere(name, totalled, [criterion], call)
}

/** `SUMIFS(summed; set; criterion; …)`, `COUNTIFS(set; criterion; …)`. */
function checkIfs(name: AggregateName, call: Call, from: 0 | 1): Expr {
	const { tree } = call
	countArguments(tree, from + 2, 255)
	if ((tree.args.length - from) % 2 === 1)
		throw new Refused(issue.wrongCount(tree.name, 'pairs of a set and a criterion', tree.args.length, tree.span))
	const criteria: Criterion[] = []
	for (let i = from; i < tree.args.length; i += 2) criteria.push(criterionAt(call, i))
	const totalled = from === 1 ? valuesAt(call, argumentAt(tree, 0)) : criteria[0]?.set
	if (!totalled) throw new Error(`Expected "${tree.name}" to have a criterion`)
	return totalWhere(name, totalled, criteria, call)
}

function criterionAt(call: Call, i: number): Criterion {
	const [set, wanted] = [argumentAt(call.tree, i), argumentAt(call.tree, i + 1)]
	return { set: valuesAt(call, set), wanted: call.part(wanted, `A criterion of ${call.tree.name}`), span: wanted.span }
}

function valuesAt(call: Call, tree: Syntax): Part {
	const part = call.part(tree, call.tree.name)
	return { ...part, expr: labelsOf(part.expr, call) }
}

function totalWhere(name: AggregateName, totalled: Part, criteria: readonly Criterion[], call: Call): Expr {
	const set = totalled.expr
	if (set.kind === 'list') return totalOfList(name, set.items, criteria, call)
	if (set.kind !== 'each')
		throw new Refused(issue.wrongType(call.tree.name, 'a set of values', describe(set.type), totalled.span))
	const tests = criteria.map((criterion) => {
		const other = criterion.set.expr
		if (other.kind !== 'each' || !isSameTree(other.rows, set.rows))
			throw new Refused(issue.otherRows(call.tree.name, criterion.set.span))
		return fits({ ...criterion.set, expr: other.item }, criterion)
	})
	const where = tests.reduce((left, right): Expr => ({ kind: 'and', args: [left, right], type: YESNO }))
	const rows: Expr = { kind: 'filter', rows: set.rows, level: set.level, where, type: set.rows.type }
	if (name === 'COUNTA') return { kind: 'aggregate', name: 'COUNT', args: [rows], type: NUMBER }
	const arg = toTotalled(name, { ...totalled, expr: { ...set, rows } }, call)
	return { kind: 'aggregate', name, args: [arg], type: totalType(name, [arg]) }
}

function totalOfList(name: AggregateName, items: readonly Expr[], criteria: readonly Criterion[], call: Call): Expr {
	const args = items.map((item, i): Expr => {
		const tests = criteria.map((criterion) => {
			const list = criterion.set.expr
			const other = list.kind === 'list' && list.items.length === items.length ? list.items[i] : undefined
			if (!other) throw new Refused(issue.otherRows(call.tree.name, criterion.set.span))
			return fits({ ...criterion.set, expr: other }, criterion)
		})
		return { kind: 'if', test: { kind: 'and', args: tests, type: YESNO }, then: item, else: BLANK, type: item.type }
	})
	return { kind: 'aggregate', name, args, type: totalType(name, args) }
}

/** No rows to take a mean of is an error here, as in OpenFormula; plain AVERAGE gives a blank. */
function unlessNone(mean: Expr): Expr {
	const none: Expr = { kind: 'isblank', arg: mean, type: YESNO }
	const error: Expr = { kind: 'literal', value: DIV_ZERO, type: { kind: 'blank' } }
	return { kind: 'if', test: none, then: error, else: mean, type: mean.type }
}

const CRITERION = /^(<>|<=|>=|=|<|>)?(.*)$/s

/** Whether a value fits a criterion: a value to equal, or a text such as ">4", "<>Trot", "NH-*" (OpenFormula 4.11.8). */
function fits(item: Part, { wanted, span }: Criterion): Expr {
	const { expr } = wanted
	if (expr.kind !== 'literal' || typeof expr.value !== 'string') return compare('=', item, wanted, span)
	const [, sign = '=', rest = ''] = CRITERION.exec(expr.value) ?? []
	// Which sign stands here was looked at above.
	const op = sign as CompareOp
	if (rest === '') {
		const blank: Expr = { kind: 'isblank', arg: item.expr, type: YESNO }
		return op === '<>' ? { kind: 'not', arg: blank, type: YESNO } : blank
	}
	const { kind } = item.expr.type
	if (kind === 'text' && hasWildcards(rest) && (op === '=' || op === '<>')) {
		const args: Expr[] = [item.expr, { kind: 'literal', value: rest, type: TEXT }]
		const fit: Expr = { kind: 'call', fn: FITS, args, type: YESNO }
		return op === '=' ? fit : { kind: 'not', arg: fit, type: YESNO }
	}
	const value = readWanted(rest, kind)
	// A number is never a text: such a criterion fits nothing, and its opposite everything.
	if (!value) return { kind: 'literal', value: op === '<>', type: YESNO }
	return compare(op, item, { ...wanted, expr: value }, span)
}

function readWanted(text: string, kind: Type['kind']): Expr | undefined {
	if (kind === 'text') return { kind: 'literal', value: text, type: TEXT }
	if (kind === 'date' || kind === 'datetime')
		return isIsoDate(text) ? { kind: 'literal', value: text, type: DATE } : undefined
	if (kind === 'yesno') {
		const yes = /^true$/i.test(text)
		return yes || /^false$/i.test(text) ? { kind: 'literal', value: yes, type: YESNO } : undefined
	}
	const number = text.trim() === '' ? Number.NaN : Number(text)
	return Number.isFinite(number) ? { kind: 'literal', value: number, type: NUMBER } : undefined
}
