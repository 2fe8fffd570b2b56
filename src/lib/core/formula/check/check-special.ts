/** The calls that the checker turns into nodes of their own: lazy ones, questions about a value, sets, the clock. */
import type { Expr, Syntax, Type } from '../../model/formula.ts'
import { argumentAt, countArguments, type Call, type CheckCall, type Scope } from './check-call.ts'
import { findTotal } from './check-totals.ts'
import { describe, isMany } from './column-type.ts'
import {
	BLANK,
	compare,
	NUMBER,
	Refused,
	TEXT,
	toCondition,
	toNumber,
	toText,
	unify,
	YESNO,
	type Part
} from './convert.ts'
import { TEXT_OF_DATE, TEXT_OF_MOMENT, TEXT_OF_NUMBER, TEXT_OF_TEXT } from '../functions/format-text.ts'
import * as issue from '../syntax/issues.ts'
import { BAD_VALUE, NOT_AVAILABLE, type ErrorValue } from '../../model/formula.ts'

export function findSpecial(name: string): CheckCall | undefined {
	return SPECIALS.get(name) ?? findTotal(name)
}

const SPECIALS: ReadonlyMap<string, CheckCall> = new Map<string, CheckCall>([
	['IF', checkIf],
	['IFS', checkIfs],
	['SWITCH', checkSwitch],
	['CHOOSE', checkChoose],
	['AND', (call) => checkLogic('and', call)],
	['OR', (call) => checkLogic('or', call)],
	['XOR', checkXor],
	['NOT', (call) => ({ kind: 'not', arg: toCondition(only(call, 'NOT')), type: YESNO })],
	['TRUE', (call) => constant(call, true)],
	['FALSE', (call) => constant(call, false)],
	['NA', (call) => none(call) && inError(NOT_AVAILABLE)],
	['ISBLANK', (call) => ({ kind: 'isblank', arg: one(call), type: YESNO })],
	['ISERROR', (call) => ({ kind: 'iserror', which: 'any', arg: one(call), type: YESNO })],
	['ISERR', (call) => ({ kind: 'iserror', which: 'err', arg: one(call), type: YESNO })],
	['ISNA', (call) => ({ kind: 'iserror', which: 'na', arg: one(call), type: YESNO })],
	['ISNUMBER', (call) => ({ kind: 'istype', which: 'number', arg: one(call), type: YESNO })],
	['ISTEXT', (call) => ({ kind: 'istype', which: 'text', arg: one(call), type: YESNO })],
	['ERROR.TYPE', (call) => ({ kind: 'errortype', arg: one(call), type: NUMBER })],
	['IFERROR', (call) => checkIfError('any', call)],
	['IFNA', (call) => checkIfError('na', call)],
	['T', checkT],
	['N', checkN],
	['TEXT', checkText],
	['TODAY', (call) => none(call) && { kind: 'now', what: 'TODAY', type: { kind: 'date' } }],
	['NOW', (call) => none(call) && { kind: 'now', what: 'NOW', type: { kind: 'datetime' } }],
	['FILTER', checkFilter],
	['SORT', checkSort],
	['FIRST', checkFirst]
] satisfies [string, (call: Call) => Expr][])

function none({ tree }: Call): true {
	countArguments(tree, 0, 0)
	return true
}

function only(call: Call, what: string): Part {
	return call.part(countArguments(call.tree, 1, 1), what)
}

/** The one single value of a call. */
function one(call: Call): Expr {
	const { expr, span } = only(call, call.tree.name)
	if (isMany(expr.type)) throw new Refused(issue.wrongType(call.tree.name, 'one value', describe(expr.type), span))
	return expr
}

function constant(call: Call, value: boolean): Expr {
	none(call)
	return { kind: 'literal', value, type: YESNO }
}

function inError(value: ErrorValue): Expr {
	return { kind: 'literal', value, type: { kind: 'blank' } }
}

interface Branch {
	readonly test: Expr
	readonly then: Expr
}

/** `IF` within `IF`, from the last branch to the first. */
function toBranches(branches: readonly Branch[], otherwise: Expr, { tree }: Call): Expr {
	return branches.reduceRight<Expr>((rest, { test, then }) => {
		const type: Type = unify(then.type, rest.type, tree.name, tree.span)
		return { kind: 'if', test, then, else: rest, type }
	}, otherwise)
}

function checkIf(call: Call): Expr {
	const { tree } = call
	const test = countArguments(tree, 2, 3)
	const then = call.check(argumentAt(tree, 1))
	const otherwise = tree.args[2] ? call.check(tree.args[2]) : BLANK
	return toBranches([{ test: toCondition(call.part(test, 'The test of IF')), then }], otherwise, call)
}

function checkIfs(call: Call): Expr {
	const { tree } = call
	countArguments(tree, 2, 254)
	if (tree.args.length % 2 === 1)
		throw new Refused(issue.wrongCount('IFS', 'pairs of a test and a value', tree.args.length, tree.span))
	const branches = pairsFrom(tree, 0).map(([test, then]) => ({
		test: toCondition(call.part(test, 'A test of IFS')),
		then: call.check(then)
	}))
	return toBranches(branches, inError(NOT_AVAILABLE), call)
}

function checkSwitch(call: Call): Expr {
	const { tree } = call
	const value = call.part(countArguments(tree, 3, 254), 'The value of SWITCH')
	const branches = pairsFrom(tree, 1).map(([each, then]) => ({
		test: compare('=', value, call.part(each, 'A case of SWITCH'), each.span),
		then: call.check(then)
	}))
	const last = tree.args.length % 2 === 0 ? tree.args.at(-1) : undefined
	return toBranches(branches, last ? call.check(last) : inError(NOT_AVAILABLE), call)
}

function checkChoose(call: Call): Expr {
	const { tree } = call
	const number = toNumber(call.part(countArguments(tree, 2, 255), 'The number of CHOOSE'))
	const below = (limit: number): Expr => ({
		kind: 'compare',
		op: '<',
		left: number,
		right: { kind: 'literal', value: limit, type: NUMBER },
		type: YESNO
	})
	const values = tree.args.slice(1).map((arg) => call.check(arg))
	const branches = values.map((then, i) => ({ test: below(i + 2), then }))
	return toBranches([{ test: below(1), then: inError(BAD_VALUE) }, ...branches], inError(BAD_VALUE), call)
}

function pairsFrom(tree: Call['tree'], from: number): readonly (readonly [Syntax, Syntax])[] {
	const pairs: [Syntax, Syntax][] = []
	for (let i = from; i + 1 < tree.args.length; i += 2) pairs.push([argumentAt(tree, i), argumentAt(tree, i + 1)])
	return pairs
}

function checkLogic(kind: 'and' | 'or', call: Call): Expr {
	countArguments(call.tree, 1, 255)
	return { kind, args: call.tree.args.map((arg) => toCondition(call.part(arg, call.tree.name))), type: YESNO }
}

/** Whether yes and no differ, one after the other. */
function checkXor(call: Call): Expr {
	countArguments(call.tree, 1, 255)
	const asYesNo = (arg: Expr): Expr => ({ kind: 'not', arg: { kind: 'not', arg, type: YESNO }, type: YESNO })
	return call.tree.args
		.map((arg) => asYesNo(toCondition(call.part(arg, 'XOR'))))
		.reduce((left, right): Expr => ({ kind: 'compare', op: '<>', left, right, type: YESNO }))
}

function checkIfError(only: 'any' | 'na', call: Call): Expr {
	const { tree } = call
	const arg = call.check(countArguments(tree, 2, 2))
	const otherwise = call.check(argumentAt(tree, 1))
	return { kind: 'iferror', only, arg, else: otherwise, type: unify(arg.type, otherwise.type, tree.name, tree.span) }
}

function checkT(call: Call): Expr {
	const value = one(call)
	if (value.type.kind === 'text') return value
	const empty: Expr = { kind: 'literal', value: '', type: TEXT }
	const isText: Expr = { kind: 'istype', which: 'text', arg: value, type: YESNO }
	return value.type.kind === 'mixed' ? { kind: 'if', test: isText, then: value, else: empty, type: TEXT } : empty
}

/** The value if it is a number, 1 or 0 for yes and no, 0 for a text; a date has no number of its own here. */
function checkN(call: Call): Expr {
	const value = one(call)
	const nought: Expr = { kind: 'literal', value: 0, type: NUMBER }
	const { kind } = value.type
	if (kind === 'number' || kind === 'duration')
		return { kind: 'arithmetic', op: '+', left: value, right: nought, type: NUMBER }
	if (kind === 'yesno') {
		const oneMore: Expr = { kind: 'literal', value: 1, type: NUMBER }
		return { kind: 'if', test: value, then: oneMore, else: nought, type: NUMBER }
	}
	if (kind === 'date' || kind === 'datetime')
		throw new Refused(
			issue.wrongType(
				'N',
				'a number, yes or no, or a text',
				`${describe(value.type)}. Take a date from it`,
				call.tree.span
			)
		)
	return nought
}

/** TEXT is one function for those who write, and one for each kind of value here. */
function checkText(call: Call): Expr {
	const { tree } = call
	const value = call.part(countArguments(tree, 2, 2), 'The value of TEXT')
	const format = toText(call.part(argumentAt(tree, 1), 'The format of TEXT'))
	const { kind } = value.expr.type
	if (kind === 'date') return { kind: 'call', fn: TEXT_OF_DATE, args: [value.expr, format], type: TEXT }
	if (kind === 'datetime') return checkMomentText(value, format, call)
	if (kind === 'number' || kind === 'duration')
		return { kind: 'call', fn: TEXT_OF_NUMBER, args: [toNumber(value), format], type: TEXT }
	return { kind: 'call', fn: TEXT_OF_TEXT, args: [toText(value), format], type: TEXT }
}

/** An instant is its date and its time where the workspace is, as one number of days. */
function checkMomentText(value: Part, format: Expr, call: Call): Expr {
	const zone: Expr = { kind: 'literal', value: call.scope.catalogue.timeZone, type: TEXT }
	return { kind: 'call', fn: TEXT_OF_MOMENT, args: [value.expr, format, zone], type: TEXT }
}

function rowsAt(call: Call, i: number): Expr {
	const { expr, span } = call.part(argumentAt(call.tree, i), call.tree.name)
	if (expr.type.kind === 'rows') return expr
	throw new Refused(issue.wrongType(call.tree.name, 'a set of rows', describe(expr.type), span))
}

function innerScope(scope: Scope, rows: Expr): Scope {
	return rows.type.kind === 'rows' ? { ...scope, rows: [...scope.rows, rows.type.table] } : scope
}

function checkFilter(call: Call): Expr {
	countArguments(call.tree, 2, 2)
	const rows = rowsAt(call, 0)
	const inner = innerScope(call.scope, rows)
	const where = toCondition(call.part(argumentAt(call.tree, 1), 'The condition of FILTER', inner))
	return { kind: 'filter', rows, level: call.scope.rows.length, where, type: rows.type }
}

function checkSort(call: Call): Expr {
	const { tree } = call
	countArguments(tree, 2, 3)
	const rows = rowsAt(call, 0)
	const key = call.part(argumentAt(tree, 1), 'The key of SORT', innerScope(call.scope, rows))
	if (isMany(key.expr.type) || key.expr.type.kind === 'row')
		throw new Refused(
			issue.wrongType('The key of SORT', 'a value that has an order', describe(key.expr.type), key.span)
		)
	const falling = tree.args[2] ? call.check(tree.args[2]) : undefined
	if (falling && (falling.kind !== 'literal' || typeof falling.value !== 'boolean'))
		throw new Refused(
			issue.wrongType(
				'The third part of SORT',
				'TRUE (falling) or FALSE (rising)',
				'something else',
				argumentAt(tree, 2).span
			)
		)
	return {
		kind: 'sort',
		rows,
		level: call.scope.rows.length,
		key: key.expr,
		falling: falling?.kind === 'literal' && falling.value === true,
		type: rows.type
	}
}

function checkFirst(call: Call): Expr {
	const { expr, span } = only(call, 'FIRST')
	const { type } = expr
	if (expr.kind === 'list') return expr.items[0] ?? BLANK
	if (type.kind === 'rows') return { kind: 'first', set: expr, type: { kind: 'row', table: type.table } }
	if (type.kind === 'set') return { kind: 'first', set: expr, type: type.of }
	throw new Refused(issue.wrongType('FIRST', 'a set', describe(type), span))
}
