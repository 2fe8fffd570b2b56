/**
 * Resolves names and checks types: a syntax tree becomes a typed tree, or issues in the reader's words.
 *
 * Only these conversions happen by themselves: number → text, number → yes/no, an ISO literal → date, a row → its label
 * where a text is wanted. `date + number` and `date - date` become calls, so that later phases know one arithmetic.
 *
 * Does not evaluate anything; constants are left as they stand.
 */
import { textKey } from '../text/key.ts'
import { findNearest } from '../text/nearest.ts'
import { isIsoDate } from '../schedule/calendar.ts'
import { findColumn, getColumn, getTable, type Catalogue, type Column, type Table } from '../table/types.ts'
import { unreachable } from '../unreachable.ts'
import { ADD_DAYS, DAYS_BETWEEN } from './functions/dates.ts'
import { FUNCTION_NAMES, FUNCTIONS } from './functions/table.ts'
import * as issue from './issues.ts'
import { parse } from './parse.ts'
import { tokenize } from './tokens.ts'
import type { AggregateName, ArithmeticOp, CompareOp, Expr, Issue, Span, Syntax, Type } from './types.ts'

export interface Scope {
	readonly catalogue: Catalogue
	/** The tables whose rows are in reach, outermost first; none for a formula that stands on no row. */
	readonly rows: readonly Table[]
	/** Whether somebody is looking, so that `me` has a meaning. */
	readonly me: boolean
}

export interface Checked {
	readonly expr: Expr | undefined
	readonly issues: readonly Issue[]
}

const BLANK: Expr = { kind: 'literal', value: null, type: { kind: 'blank' } }
const NUMBER: Type = { kind: 'number' }
const TEXT: Type = { kind: 'text' }
const YESNO: Type = { kind: 'yesno' }

class Refused extends Error {
	readonly issue: Issue
	constructor(found: Issue) {
		super(found.message)
		this.issue = found
	}
}

/** Parses and checks a formula that gives one value. */
export function check(source: string, scope: Scope): Checked {
	const { tree, issues } = parse(source)
	if (!tree || issues.length > 0) return { expr: undefined, issues }
	try {
		// Asked first: what is wrong with one reading is of no use to who meant the other.
		const ambiguous = findAmbiguous(source, scope)
		if (ambiguous) return refuse(ambiguous)
		const expr = checkTree(tree, scope)
		if (isMany(expr.type)) {
			return refuse(issue.wrongType('The result', 'one value', describe(expr.type), tree.span))
		}
		return { expr, issues: [] }
	} catch (error) {
		if (error instanceof Refused) return refuse(error.issue)
		throw error
	}
}

/** Checks a formula that must be true or not, as for a filter or an access line. */
export function checkCondition(source: string, scope: Scope): Checked {
	const checked = check(source, scope)
	if (!checked.expr) return checked
	const { kind } = checked.expr.type
	if (kind === 'yesno' || kind === 'number' || kind === 'blank') return checked
	const span = { from: 0, to: source.length }
	return refuse(issue.wrongType('A condition', 'something that is true or not', describe(checked.expr.type), span))
}

/** The type that formulas see for a column. */
export function columnType(catalogue: Catalogue, column: Column): Type {
	switch (column.type) {
		case 'whole number':
		case 'decimal':
		case 'money':
		case 'percent':
			return NUMBER
		case 'yes/no':
			return YESNO
		case 'date':
			return { kind: 'date' }
		case 'date and time':
			return { kind: 'datetime' }
		case 'reference':
			return { kind: 'row', table: getTable(catalogue, column.to ?? 0) }
		case 'computed':
			return column.computed?.expr.type ?? { kind: 'blank' }
		case 'text':
		case 'long text':
		case 'choice':
		case 'email':
		case 'phone':
		case 'web address':
		case 'code':
		case 'place':
			return TEXT
		default:
			return unreachable(column.type, 'columnType')
	}
}

/** What a type is called in a message. */
export function describe(type: Type): string {
	switch (type.kind) {
		case 'number':
			return 'a number'
		case 'text':
			return 'a text'
		case 'yesno':
			return 'yes or no'
		case 'date':
			return 'a date'
		case 'datetime':
			return 'a date and time'
		case 'blank':
			return 'blank'
		case 'mixed':
			return 'sometimes a number, sometimes a text'
		case 'row':
			return `a row of ${type.table.name}`
		case 'rows':
			return `many rows of ${type.table.name}`
		case 'set':
			return 'many values'
		default:
			return unreachable(type, 'describe')
	}
}

function refuse(found: Issue): Checked {
	return { expr: undefined, issues: [found] }
}

function isMany(type: Type): boolean {
	return type.kind === 'rows' || type.kind === 'set'
}

function checkTree(tree: Syntax, scope: Scope): Expr {
	switch (tree.kind) {
		case 'number':
			return { kind: 'literal', value: tree.value, type: NUMBER }
		case 'text':
			return { kind: 'literal', value: tree.value, type: TEXT }
		case 'yesno':
			return { kind: 'literal', value: tree.value, type: YESNO }
		case 'name':
			return checkName(tree.name, tree.span, scope)
		case 'this':
		case 'me':
			throw new Refused(
				issue.unreadable(`After "${tree.kind}" comes a dot and a column: ${tree.kind}.name.`, tree.span)
			)
		case 'member':
			return checkMember(tree, scope)
		case 'call':
			return checkCall(tree, scope)
		case 'unary':
			return checkUnary(tree, scope)
		case 'binary':
			return checkBinary(tree, scope)
		case 'list':
			throw new Refused(issue.unreadable('A list has its place only after "in".', tree.span))
		default:
			return unreachable(tree, 'checkTree')
	}
}

function checkName(name: string, span: Span, scope: Scope): Expr {
	const level = scope.rows.length - 1
	const table = scope.rows[level]
	if (!table) throw new Refused(issue.unknownColumn(name, 'this place, which stands on no row', undefined, span))
	return memberOf({ kind: 'this', level, type: { kind: 'row', table } }, name, span, scope)
}

function checkMember(tree: Syntax & { kind: 'member' }, scope: Scope): Expr {
	if (tree.of.kind === 'me') return checkMe(tree, scope)
	if (tree.of.kind === 'this') {
		const level = Math.max(0, scope.rows.length - 2)
		const table = scope.rows[level]
		if (!table) throw new Refused(issue.unreadable('"this" has no row here.', tree.of.span))
		return memberOf({ kind: 'this', level, type: { kind: 'row', table } }, tree.name, tree.nameSpan, scope)
	}
	return memberOf(checkTree(tree.of, scope), tree.name, tree.nameSpan, scope)
}

function checkMe(tree: Syntax & { kind: 'member' }, scope: Scope): Expr {
	if (!scope.me) throw new Refused(issue.noMe(tree.of.span))
	const column = findByName(scope.catalogue.people.columns, tree.name)
	if (!column) throw new Refused(unknownIn(scope.catalogue.people, tree.name, tree.nameSpan))
	return { kind: 'me', column, type: columnType(scope.catalogue, column) }
}

/** A column or reverse reference of a row, or of each row of a set. */
function memberOf(of: Expr, name: string, span: Span, scope: Scope): Expr {
	const { type } = of
	if (type.kind === 'row') return memberOfRow(of, type.table, name, span, scope)
	if (type.kind === 'rows') {
		const level = scope.rows.length
		const row: Expr = { kind: 'this', level, type: { kind: 'row', table: type.table } }
		const item = memberOfRow(row, type.table, name, span, scope)
		return toEach(of, level, item, span)
	}
	if (of.kind === 'each' && type.kind === 'set' && type.of.kind === 'row') {
		return toEach(of.rows, of.level, memberOfRow(of.item, type.of.table, name, span, scope), span)
	}
	throw new Refused(
		issue.unreadable(`"${name}" cannot follow ${describe(type)}: a dot follows a reference or a set of rows.`, span)
	)
}

function toEach(rows: Expr, level: number, item: Expr, span: Span): Expr {
	if (isMany(item.type)) {
		throw new Refused(
			issue.unreadable('A set of sets cannot be followed further. Total it in a column of its own first.', span)
		)
	}
	return { kind: 'each', rows, level, item, type: { kind: 'set', of: item.type } }
}

function memberOfRow(of: Expr, table: Table, name: string, span: Span, scope: Scope): Expr {
	const column = findByName(table.columns, name)
	if (column) return { kind: 'field', of, table, column, type: columnType(scope.catalogue, column) }
	const reverse = findByName(table.reverses, name)
	if (reverse) {
		const child = getTable(scope.catalogue, reverse.table)
		return { kind: 'children', of, reverse, type: { kind: 'rows', table: child } }
	}
	throw new Refused(unknownIn(table, name, span))
}

function unknownIn(table: Table, name: string, span: Span): Issue {
	const names = [...table.columns, ...table.reverses].map((each) => each.name)
	return issue.unknownColumn(name, table.name, findNearest(name, names), span)
}

function findByName<T extends { readonly name: string }>(list: readonly T[], name: string): T | undefined {
	const key = nameKey(name)
	return list.find((each) => nameKey(each.name) === key)
}

/** Names are found without regard to case or to how many spaces stand between words. */
function nameKey(name: string): string {
	return textKey(name).replace(/\s+/g, ' ').trim()
}

function checkCall(tree: Syntax & { kind: 'call' }, scope: Scope): Expr {
	const special = SPECIALS[tree.name]
	if (special) return special(tree, scope)
	const fn = FUNCTIONS.get(tree.name)
	if (!fn) throw new Refused(issue.unknownFunction(tree.name, findNearest(tree.name, FUNCTION_NAMES), tree.nameSpan))
	const required = fn.parameters.filter((parameter) => !parameter.optional).length
	countArguments(tree, required, fn.parameters.length)
	const args = tree.args.map((arg, i) => {
		const wanted = fn.parameters[i]
		if (!wanted) throw new Error(`Expected function "${fn.name}" to have a parameter ${i}, got none`)
		const what = `The ${wanted.name} of ${fn.name}`
		const checked = checkTree(arg, scope)
		if (wanted.type === 'number') return toNumber(checked, what, arg.span)
		if (wanted.type === 'date') return toDate(checked, what, arg.span)
		return toText(checked, what, arg.span)
	})
	return { kind: 'call', fn, args, type: { kind: fn.result } }
}

type CheckSpecial = (tree: Syntax & { kind: 'call' }, scope: Scope) => Expr

const SPECIALS: Readonly<Record<string, CheckSpecial>> = {
	IF: checkIf,
	AND: (tree, scope) => checkLogic('and', tree, scope),
	OR: (tree, scope) => checkLogic('or', tree, scope),
	NOT: (tree, scope) => {
		const arg = countArguments(tree, 1, 1)
		return { kind: 'not', arg: toCondition(checkTree(arg, scope), 'NOT', arg.span), type: YESNO }
	},
	TRUE: (tree) => constant(tree, true),
	FALSE: (tree) => constant(tree, false),
	ISBLANK: (tree, scope) => {
		const arg = countArguments(tree, 1, 1)
		return { kind: 'isblank', arg: checkTree(arg, scope), type: YESNO }
	},
	IFERROR: checkIfError,
	TODAY: (tree) => clock(tree, 'TODAY'),
	NOW: (tree) => clock(tree, 'NOW'),
	FILTER: checkFilter,
	COUNT: (tree, scope) => checkAggregate('COUNT', tree, scope),
	COUNTA: (tree, scope) => checkAggregate('COUNTA', tree, scope),
	SUM: (tree, scope) => checkAggregate('SUM', tree, scope),
	MIN: (tree, scope) => checkAggregate('MIN', tree, scope),
	MAX: (tree, scope) => checkAggregate('MAX', tree, scope),
	AVERAGE: (tree, scope) => checkAggregate('AVERAGE', tree, scope)
}

function constant(tree: Syntax & { kind: 'call' }, value: boolean): Expr {
	countArguments(tree, 0, 0)
	return { kind: 'literal', value, type: YESNO }
}

function clock(tree: Syntax & { kind: 'call' }, what: 'TODAY' | 'NOW'): Expr {
	countArguments(tree, 0, 0)
	return { kind: 'now', what, type: { kind: what === 'TODAY' ? 'date' : 'datetime' } }
}

function checkIf(tree: Syntax & { kind: 'call' }, scope: Scope): Expr {
	const test = countArguments(tree, 2, 3)
	const then = checkTree(tree.args[1] ?? test, scope)
	const otherwise = tree.args[2] ? checkTree(tree.args[2], scope) : BLANK
	return {
		kind: 'if',
		test: toCondition(checkTree(test, scope), 'The test of IF', test.span),
		then,
		else: otherwise,
		type: unify(then.type, otherwise.type, 'IF', tree.span)
	}
}

function checkIfError(tree: Syntax & { kind: 'call' }, scope: Scope): Expr {
	const first = countArguments(tree, 2, 2)
	const arg = checkTree(first, scope)
	const otherwise = checkTree(tree.args[1] ?? first, scope)
	return { kind: 'iferror', arg, else: otherwise, type: unify(arg.type, otherwise.type, 'IFERROR', tree.span) }
}

function checkLogic(kind: 'and' | 'or', tree: Syntax & { kind: 'call' }, scope: Scope): Expr {
	countArguments(tree, 1, 255)
	const args = tree.args.map((arg) => toCondition(checkTree(arg, scope), tree.name, arg.span))
	return { kind, args, type: YESNO }
}

function checkFilter(tree: Syntax & { kind: 'call' }, scope: Scope): Expr {
	const first = countArguments(tree, 2, 2)
	const rows = checkTree(first, scope)
	if (rows.type.kind !== 'rows') {
		throw new Refused(issue.wrongType('FILTER', 'a set of rows', describe(rows.type), first.span))
	}
	const second = tree.args[1] ?? first
	const inner: Scope = { ...scope, rows: [...scope.rows, rows.type.table] }
	const where = toCondition(checkTree(second, inner), 'The condition of FILTER', second.span)
	return { kind: 'filter', rows, level: scope.rows.length, where, type: rows.type }
}

function checkAggregate(name: AggregateName, tree: Syntax & { kind: 'call' }, scope: Scope): Expr {
	countArguments(tree, 1, 255)
	const args = tree.args.map((arg) => checkAggregated(name, checkTree(arg, scope), arg.span, scope))
	const many = args.filter((arg) => isMany(arg.type))
	if (many.length > 0 && args.length > 1) {
		throw new Refused(issue.unreadable(`${name} takes one set, or several single values, not both.`, tree.span))
	}
	const item = args[0]?.type ?? NUMBER
	const of = item.kind === 'set' ? item.of : item
	const keepsType = name === 'MIN' || name === 'MAX'
	return { kind: 'aggregate', name, args, type: keepsType && of.kind === 'date' ? of : NUMBER }
}

function checkAggregated(name: AggregateName, arg: Expr, span: Span, scope: Scope): Expr {
	const { type } = arg
	if (type.kind === 'rows')
		return name === 'COUNT' || name === 'COUNTA'
			? arg
			: checkAggregated(name, toLabels(arg, type.table, scope), span, scope)
	const of = type.kind === 'set' ? type.of.kind : type.kind
	if (name === 'COUNTA') return arg
	// COUNT counts numbers: a single value of another kind adds nothing.
	if (name === 'COUNT' && type.kind !== 'set' && of !== 'number' && of !== 'date') return BLANK
	const dates = name === 'MIN' || name === 'MAX' || name === 'COUNT'
	if (of === 'number' || of === 'blank' || (dates && of === 'date')) return arg
	const remedy = name === 'COUNT' ? 'numbers or rows (COUNTA counts everything that is not blank)' : 'numbers'
	throw new Refused(issue.wrongType(name, remedy, describe(type.kind === 'set' ? type.of : type), span))
}

/** The set of the labels of a set of rows: how a set is read where values are wanted. */
function toLabels(rows: Expr, table: Table, scope: Scope): Expr {
	const level = scope.rows.length
	const label = getColumn(table, table.label)
	const row: Expr = { kind: 'this', level, type: { kind: 'row', table } }
	const type = columnType(scope.catalogue, label)
	const item: Expr = { kind: 'field', of: row, table, column: label, type }
	return { kind: 'each', rows, level, item, type: { kind: 'set', of: type } }
}

function checkUnary(tree: Syntax & { kind: 'unary' }, scope: Scope): Expr {
	const arg = checkTree(tree.arg, scope)
	switch (tree.op) {
		case 'not':
			return { kind: 'not', arg: toCondition(arg, '"not"', tree.arg.span), type: YESNO }
		case '-':
			return { kind: 'negate', arg: toNumber(arg, 'A minus sign', tree.arg.span), type: NUMBER }
		case '+':
			return toNumber(arg, 'A plus sign', tree.arg.span)
		case '%': {
			const left = toNumber(arg, '"%"', tree.arg.span)
			return { kind: 'arithmetic', op: '/', left, right: { kind: 'literal', value: 100, type: NUMBER }, type: NUMBER }
		}
		default:
			return unreachable(tree.op, 'checkUnary')
	}
}

function checkBinary(tree: Syntax & { kind: 'binary' }, scope: Scope): Expr {
	if (tree.op === 'in') return checkIn(tree, scope)
	const left = checkTree(tree.left, scope)
	const right = checkTree(tree.right, scope)
	switch (tree.op) {
		case '+':
		case '-':
		case '*':
		case '/':
		case '^':
			return checkArithmetic(tree.op, { left, right, tree })
		case '&': {
			const join = { left: toText(left, '"&"', tree.left.span), right: toText(right, '"&"', tree.right.span) }
			return { kind: 'join', ...join, type: TEXT }
		}
		case 'and':
		case 'or': {
			const what = `"${tree.op}"`
			const args = [toCondition(left, what, tree.left.span), toCondition(right, what, tree.right.span)]
			return { kind: tree.op, args, type: YESNO }
		}
		default:
			return compare(tree.op, left, right, tree.span)
	}
}

interface Operands {
	readonly left: Expr
	readonly right: Expr
	readonly tree: Syntax & { kind: 'binary' }
}

function checkArithmetic(op: ArithmeticOp, { left, right, tree }: Operands): Expr {
	const dates = [left.type.kind, right.type.kind].filter((kind) => kind === 'date').length
	if (dates > 0 && (op === '+' || op === '-')) {
		if (left.type.kind === 'date' && right.type.kind === 'date' && op === '-') {
			return { kind: 'call', fn: DAYS_BETWEEN, args: [left, right], type: NUMBER }
		}
		if (left.type.kind === 'date') {
			const days = toNumber(right, 'The number of days', tree.right.span)
			const by: Expr = op === '-' ? { kind: 'negate', arg: days, type: NUMBER } : days
			return { kind: 'call', fn: ADD_DAYS, args: [left, by], type: { kind: 'date' } }
		}
		if (op === '+') {
			const days = toNumber(left, 'The number of days', tree.left.span)
			return { kind: 'call', fn: ADD_DAYS, args: [right, days], type: { kind: 'date' } }
		}
	}
	const numbers = {
		left: toNumber(left, `"${op}"`, tree.left.span),
		right: toNumber(right, `"${op}"`, tree.right.span)
	}
	return { kind: 'arithmetic', op, ...numbers, type: NUMBER }
}

function checkIn(tree: Syntax & { kind: 'binary' }, scope: Scope): Expr {
	const item = checkTree(tree.left, scope)
	if (tree.right.kind === 'list') {
		const list = tree.right.items.map((each) => alike(item, checkTree(each, scope), each.span))
		return { kind: 'in', item: list[0]?.item ?? item, list: list.map((pair) => pair.other), type: YESNO }
	}
	const many = checkTree(tree.right, scope)
	const set = many.type.kind === 'rows' && item.type.kind !== 'row' ? toLabels(many, many.type.table, scope) : many
	return isAmong(item, set, tree.right.span)
}

/** `x in set` asks whether any row of the set equals x. */
function isAmong(item: Expr, set: Expr, span: Span): Expr {
	const zero: Expr = { kind: 'literal', value: 0, type: NUMBER }
	if (set.kind !== 'each')
		throw new Refused(issue.wrongType('"in"', 'a list or a set of values', describe(set.type), span))
	const where = compare('=', set.item, item, span)
	const rows: Expr = { kind: 'filter', rows: set.rows, level: set.level, where, type: set.rows.type }
	const count: Expr = { kind: 'aggregate', name: 'COUNT', args: [rows], type: NUMBER }
	return { kind: 'compare', op: '>', left: count, right: zero, type: YESNO }
}

function compare(op: CompareOp, left: Expr, right: Expr, span: Span): Expr {
	const pair = alike(left, right, span)
	const ordered = op !== '=' && op !== '<>'
	if (ordered && (pair.item.type.kind === 'row' || pair.item.type.kind === 'yesno')) {
		const what = describe(pair.item.type)
		throw new Refused(issue.cannotCompare(what, describe(pair.other.type), 'These have no order.', span))
	}
	return { kind: 'compare', op, left: pair.item, right: pair.other, type: YESNO }
}

/** Brings two operands to one type, or refuses with the remedy. */
function alike(left: Expr, right: Expr, span: Span): { item: Expr; other: Expr } {
	const a = left.type
	const b = right.type
	if (a.kind === 'blank' || b.kind === 'blank') return { item: left, other: right }
	if (a.kind === 'row' && b.kind === 'row' && a.table.id === b.table.id) return { item: left, other: right }
	if (a.kind === b.kind && a.kind !== 'row' && a.kind !== 'mixed' && !isMany(a)) return { item: left, other: right }
	if (a.kind === 'date' && isIsoLiteral(right)) return { item: left, other: { ...right, type: a } }
	if (b.kind === 'date' && isIsoLiteral(left)) return { item: { ...left, type: b }, other: right }
	throw new Refused(issue.cannotCompare(describe(a), describe(b), remedyFor(a, b), span))
}

function remedyFor(a: Type, b: Type): string {
	const row = a.kind === 'row' ? a : b.kind === 'row' ? b : undefined
	if (row) {
		const label = findColumn(row.table, row.table.label)
		return `Follow the reference with a dot, for instance to its ${label?.name ?? 'name'}.`
	}
	if (isMany(a) || isMany(b)) return 'Total the set first, for instance with COUNT or MAX.'
	return 'Compare like with like.'
}

function isIsoLiteral(expr: Expr): boolean {
	return expr.kind === 'literal' && typeof expr.value === 'string' && isIsoDate(expr.value)
}

function toNumber(expr: Expr, what: string, span: Span): Expr {
	if (expr.type.kind === 'number' || expr.type.kind === 'blank') return expr
	throw new Refused(issue.wrongType(what, 'a number', describe(expr.type), span))
}

function toDate(expr: Expr, what: string, span: Span): Expr {
	if (expr.type.kind === 'date' || expr.type.kind === 'blank') return expr
	if (isIsoLiteral(expr)) return { ...expr, type: { kind: 'date' } }
	throw new Refused(issue.wrongType(what, 'a date', describe(expr.type), span))
}

function toCondition(expr: Expr, what: string, span: Span): Expr {
	const { kind } = expr.type
	if (kind === 'yesno' || kind === 'number' || kind === 'blank') return expr
	throw new Refused(issue.wrongType(what, 'something that is true or not', describe(expr.type), span))
}

function toText(expr: Expr, what: string, span: Span): Expr {
	const { type } = expr
	switch (type.kind) {
		case 'text':
		case 'blank':
			return expr
		case 'row': {
			const label = getColumn(type.table, type.table.label)
			if (label.type === 'reference' || label.type === 'computed') break
			const kind = label.type === 'whole number' || label.type === 'decimal' ? NUMBER : TEXT
			return toText({ kind: 'field', of: expr, table: type.table, column: label, type: kind }, what, span)
		}
		case 'rows':
		case 'set':
			break
		default:
			return { kind: 'totext', arg: expr, type: TEXT }
	}
	throw new Refused(issue.wrongType(what, 'a text', describe(type), span))
}

function unify(a: Type, b: Type, what: string, span: Span): Type {
	if (a.kind === 'blank') return b
	if (b.kind === 'blank') return a
	if (a.kind === 'row' && b.kind === 'row' && a.table.id === b.table.id) return a
	if (a.kind === b.kind && a.kind !== 'row' && !isMany(a)) return a
	const mixes = (type: Type) => type.kind === 'number' || type.kind === 'text' || type.kind === 'mixed'
	if (mixes(a) && mixes(b)) return { kind: 'mixed' }
	throw new Refused(
		issue.cannotCompare(describe(a), describe(b), `Both outcomes of ${what} must be of one kind.`, span)
	)
}

function countArguments(tree: Syntax & { kind: 'call' }, least: number, most: number): Syntax {
	const got = tree.args.length
	if (got < least || got > most) {
		const wanted = least === most ? (least === 1 ? '1 part' : `${least} parts`) : `${least} to ${most} parts`
		throw new Refused(issue.wrongCount(tree.name, wanted, got, tree.span))
	}
	return tree.args[0] ?? tree
}

/** `terms and notes` may be a column's name and was read as two: then the writer is asked. */
function findAmbiguous(source: string, scope: Scope): Issue | undefined {
	const table = scope.rows[scope.rows.length - 1]
	const suspects = table?.columns.filter((column) => / (and|or|in|not) /i.test(column.name)) ?? []
	if (suspects.length === 0) return undefined
	const { tokens } = tokenize(source)
	for (const column of suspects) {
		const words = nameKey(column.name)
		for (let i = 0; i < tokens.length; i++) {
			let text = ''
			for (let j = i; j < tokens.length && text.length < words.length; j++) {
				const token = tokens[j]
				if (!token || token.quoted || (token.kind !== 'name' && token.kind !== 'word')) break
				text = nameKey(`${text} ${token.text}`)
				const from = tokens[i]?.span.from ?? 0
				if (text === words && j > i) return issue.ambiguousName(column.name, { from, to: token.span.to })
			}
		}
	}
	return undefined
}
