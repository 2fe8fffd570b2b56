/**
 * Resolves names and checks types: a syntax tree becomes a typed tree, or issues in the reader's words.
 *
 * `convert.ts` knows the conversions that happen by themselves, `check-special.ts` and `check-totals.ts` the calls that
 * become nodes of their own. `date + number` and `date - date` become calls here, so that later phases know one arithmetic.
 *
 * Does not evaluate anything; constants are left as they stand.
 */
import { nameKey } from '../../text/key.ts'
import { findNearest } from '../../text/nearest.ts'
import { getTable, type Table } from '../../model/table.ts'
import { unreachable } from '../../unreachable.ts'
import { columnType, describe, isMany } from './column-type.ts'
import { findSpecial } from './check-special.ts'
import { countArguments, type Call, type GivenRow, type NameUse, type Scope } from './check-call.ts'
import {
	alike,
	compare,
	DATE,
	DURATION,
	NUMBER,
	Refused,
	TEXT,
	toCondition,
	toLabels,
	toNumber,
	toParameter,
	toText,
	unify,
	YESNO,
	type Part
} from './convert.ts'
import { ADD_DAYS } from '../functions/dates.ts'
import { isSetType } from '../functions/define.ts'
import { AMONG } from '../functions/text.ts'
import { ADD_TIME, TIME_BETWEEN } from '../functions/times.ts'
import { FUNCTION_NAMES, FUNCTIONS, GRID_FUNCTIONS } from '../functions/table.ts'
import * as issue from '../syntax/issues.ts'
import { oddNamesIn } from '../syntax/odd-names.ts'
import { parse } from '../syntax/parse.ts'
import { tokenize } from '../syntax/tokens.ts'
import type { ArithmeticOp, Expr, FunctionEntry, Issue, Span, Syntax } from '../../model/formula.ts'

export interface Checked {
	readonly expr: Expr | undefined
	readonly issues: readonly Issue[]
}

/**
 * Parses and checks a formula that gives one value. A name such as `Keeper e-mail` stands without quotes where it is a
 * column's: then that is what is meant, not a difference of two others. Only where no sense comes of it is it read apart.
 */
export function check(source: string, scope: Scope): Checked {
	const odd = oddNamesIn(source, scope.catalogue)
	if (odd.length === 0) return checkReading(source, scope, odd)
	const whole = collecting(source, scope, odd)
	if (whole.expr) return whole
	const apart = collecting(source, scope, [])
	return apart.expr || !isOwnName(odd, scope) ? apart : whole
}

/** Names are told of once a reading has made sense. */
function collecting(source: string, scope: Scope, odd: readonly string[]): Checked {
	const uses: NameUse[] = []
	const checked = checkReading(source, { ...scope, onName: (use) => void uses.push(use) }, odd)
	if (checked.expr) for (const use of uses) scope.onName?.(use)
	return checked
}

function isOwnName(odd: readonly string[], { rows }: Scope): boolean {
	const own = rows.at(-1)
	return odd.some((name) => own?.columns.some((column) => column.name === name) ?? false)
}

function checkReading(source: string, scope: Scope, odd: readonly string[]): Checked {
	const { tree, issues } = parse(source, odd)
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

function refuse(found: Issue): Checked {
	return { expr: undefined, issues: [found] }
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
		case 'me':
			return { ...meNode(tree.span, scope), type: { kind: 'row', table: scope.catalogue.people } }
		case 'this':
			return checkThis(tree.span, scope)
		case 'member':
			return checkMember(tree, scope)
		case 'call':
			return checkCall(tree, scope)
		case 'unary':
			return checkUnary(tree, scope)
		case 'binary':
			return checkBinary(tree, scope)
		case 'list':
			return checkList(tree, scope)
		default:
			return unreachable(tree, 'checkTree')
	}
}

function checkName(name: string, span: Span, scope: Scope): Expr {
	const level = scope.rows.length - 1
	const table = scope.rows[level]
	if (!table) throw new Refused(issue.unknownColumn(name, 'this place, which stands on no row', undefined, span))
	if (isThem(name, table, scope)) return { kind: 'this', level, type: { kind: 'row', table } }
	return memberOf({ kind: 'this', level, type: { kind: 'row', table } }, name, span, scope)
}

function checkMember(tree: Syntax & { kind: 'member' }, scope: Scope): Expr {
	if (tree.of.kind === 'me') return checkMe(tree, scope)
	if (tree.of.kind === 'name' && isHere(tree.of.name, scope)) return checkHere(tree, scope)
	if (tree.of.kind === 'this' && scope.given && scope.rows.length === 1) return checkGiven(tree, scope, scope.given)
	if (tree.of.kind === 'this') {
		const level = Math.max(0, scope.rows.length - 2)
		const table = scope.rows[level]
		if (!table) throw new Refused(issue.unreadable('"this" has no row here.', tree.of.span))
		return memberOf({ kind: 'this', level, type: { kind: 'row', table } }, tree.name, tree.nameSpan, scope)
	}
	return memberOf(checkTree(tree.of, scope), tree.name, tree.nameSpan, scope)
}

/** The person whose row it is, among people; a column that is called so is meant first. */
function isThem(name: string, table: Table, { catalogue }: Scope): boolean {
	return nameKey(name) === 'them' && table.id === catalogue.people.id && !findByName(table.columns, name)
}

/** A column that is called so is meant first. */
function isHere(name: string, { here, rows }: Scope): boolean {
	return here !== undefined && nameKey(name) === 'here' && !findByName(rows.at(-1)?.columns ?? [], name)
}

function checkHere(tree: Syntax & { kind: 'member' }, { here = new Map() }: Scope): Expr {
	const held = here.get(nameKey(tree.name))
	if (!held) {
		const names = [...here.keys()]
		const near = findNearest(tree.name, names)
		const says =
			names.length === 0 ? 'Nothing is chosen or held here.' : `Nothing chosen or held here is called "${tree.name}".`
		throw new Refused(issue.unreadable(near === undefined ? says : `${says} Did you mean here.${near}?`, tree.nameSpan))
	}
	return { kind: 'literal', value: held.value, type: held.type }
}

/** The row around, by itself: what points to it is compared with it. */
function checkThis(span: Span, { rows, given }: Scope): Expr {
	if (given && rows.length === 1) {
		if (!given.row) throw new Refused(issue.unreadable('The row that is being filled in is none yet: write this.name.', span)) // prettier-ignore
		return { kind: 'literal', value: given.row(), type: { kind: 'row', table: given.table } }
	}
	const level = rows.length - 2
	const table = rows[level]
	if (!table) throw new Refused(issue.unreadable('After "this" comes a dot and a column: this.name.', span))
	return { kind: 'this', level, type: { kind: 'row', table } }
}

function checkGiven(tree: Syntax & { kind: 'member' }, scope: Scope, { table, value }: GivenRow): Expr {
	const column = findByName(table.columns, tree.name)
	if (!column) throw new Refused(unknownIn(table, tree.name, tree.nameSpan))
	return { kind: 'literal', value: value(column), type: columnType(scope.catalogue, column) }
}

function checkMe(tree: Syntax & { kind: 'member' }, scope: Scope): Expr {
	const me = meNode(tree.of.span, scope)
	const column = findByName(scope.catalogue.people.columns, tree.name)
	if (!column) throw new Refused(unknownIn(scope.catalogue.people, tree.name, tree.nameSpan))
	scope.onName?.({ kind: 'column', table: scope.catalogue.people.id, column: column.id, span: tree.nameSpan })
	return { ...me, column, type: columnType(scope.catalogue, column) }
}

function meNode(span: Span, scope: Scope) {
	if (!scope.me) throw new Refused(issue.noMe(span))
	return { kind: 'me', table: scope.catalogue.people, column: undefined } as const
}

/** A column or back-reference of a row, or of each row of a set. */
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
	if (column) {
		scope.onName?.({ kind: 'column', table: table.id, column: column.id, span })
		return { kind: 'field', of, table, column, type: columnType(scope.catalogue, column) }
	}
	const backReference = findByName(table.backReferences, name)
	if (backReference) {
		scope.onName?.({ kind: 'backReference', table: table.id, column: backReference.column, span })
		const child = getTable(scope.catalogue, backReference.table)
		return { kind: 'children', of, backReference, type: { kind: 'rows', table: child } }
	}
	throw new Refused(unknownIn(table, name, span))
}

function unknownIn(table: Table, name: string, span: Span): Issue {
	const names = [...table.columns, ...table.backReferences].map((each) => each.name)
	return issue.unknownColumn(name, table.name, findNearest(name, names), span)
}

function findByName<T extends { readonly name: string }>(list: readonly T[], name: string): T | undefined {
	const key = nameKey(name)
	return list.find((each) => nameKey(each.name) === key)
}

/** `{1; 2; 3}`: single values of one type. */
function checkList(tree: Syntax & { kind: 'list' }, scope: Scope): Expr {
	if (tree.items.length === 0) throw new Refused(issue.unreadable('A list needs a value: {1; 2; 3}.', tree.span))
	const items = tree.items.map((item) => checkTree(item, scope))
	if (items.some((item) => isMany(item.type)))
		throw new Refused(issue.unreadable('A list holds single values, not sets.', tree.span))
	const of = items.map((item) => item.type).reduce((a, b) => unify(a, b, 'a list', tree.span))
	return { kind: 'list', items, type: { kind: 'set', of } }
}

function checkCall(tree: Syntax & { kind: 'call' }, scope: Scope): Expr {
	const special = findSpecial(tree.name)
	if (special) return special(callOf(tree, scope))
	const fn = FUNCTIONS.get(tree.name)
	if (!fn) throw new Refused(unknownFunction(tree))
	countArguments(tree, leastArguments(fn), fn.parameters.at(-1)?.rest ? MAX_ARGUMENTS : fn.parameters.length)
	const args = fn.parameters.map((parameter, i) => {
		const what = `The ${parameter.name} of ${fn.name}`
		if (parameter.rest) return toParameter(parameter.type, restOf(tree, i, what, scope), scope.rows.length)
		const arg = tree.args[i]
		if (arg) return toParameter(parameter.type, partOf(arg, what, scope), scope.rows.length)
		return toOtherwise(fn, i)
	})
	return { kind: 'call', fn, args, type: { kind: fn.result } }
}

const MAX_ARGUMENTS = 255

function callOf(tree: Syntax & { kind: 'call' }, scope: Scope): Call {
	return {
		tree,
		scope,
		check: (arg, inner) => checkTree(arg, inner ?? scope),
		part: (arg, what, inner) => partOf(arg, what, inner ?? scope)
	}
}

function partOf(tree: Syntax, what: string, scope: Scope): Part {
	return { expr: checkTree(tree, scope), what, span: tree.span, catalogue: scope.catalogue }
}

function leastArguments(fn: FunctionEntry): number {
	return fn.parameters.filter((parameter) => parameter.otherwise === undefined).length
}

/** All parts of a call from one on: one set, or several single values. */
function restOf(tree: Syntax & { kind: 'call' }, from: number, what: string, scope: Scope): Part {
	const parts = tree.args.slice(from).map((arg) => partOf(arg, what, scope))
	const [first] = parts
	if (first && parts.length === 1) return first
	if (parts.some((part) => isMany(part.expr.type)))
		throw new Refused(issue.unreadable(`${tree.name} takes one set, or several single values, not both.`, tree.span))
	const items = parts.map((part) => part.expr)
	const expr: Expr = { kind: 'list', items, type: { kind: 'set', of: items[0]?.type ?? NUMBER } }
	return { expr, what, span: tree.span, catalogue: scope.catalogue }
}

function toOtherwise(fn: FunctionEntry, i: number): Expr {
	const parameter = fn.parameters[i]
	if (!parameter || isSetType(parameter.type)) return { kind: 'list', items: [], type: { kind: 'set', of: NUMBER } }
	// A function's parameter is otherwise one of these.
	const value = (parameter.otherwise ?? null) as null | number | string | boolean
	const type = parameter.type === 'yesno' ? YESNO : parameter.type === 'text' ? TEXT : NUMBER
	return { kind: 'literal', value, type }
}

function unknownFunction(tree: Syntax & { kind: 'call' }): Issue {
	const instead = GRID_FUNCTIONS.get(tree.name)
	if (instead) return issue.needsGrid(tree.name, instead, tree.nameSpan)
	return issue.unknownFunction(tree.name, findNearest(tree.name, FUNCTION_NAMES), tree.nameSpan)
}

function checkUnary(tree: Syntax & { kind: 'unary' }, scope: Scope): Expr {
	const arg = (what: string) => partOf(tree.arg, what, scope)
	switch (tree.op) {
		case 'not':
			return { kind: 'not', arg: toCondition(arg('"not"')), type: YESNO }
		case '-': {
			const negated = toNumber(arg('A minus sign'))
			return { kind: 'negate', arg: negated, type: negated.type.kind === 'duration' ? DURATION : NUMBER }
		}
		case '+':
			return toNumber(arg('A plus sign'))
		case '%': {
			const left = toNumber(arg('"%"'))
			return { kind: 'arithmetic', op: '/', left, right: { kind: 'literal', value: 100, type: NUMBER }, type: NUMBER }
		}
		default:
			return unreachable(tree.op, 'checkUnary')
	}
}

function checkBinary(tree: Syntax & { kind: 'binary' }, scope: Scope): Expr {
	if (tree.op === 'in') return checkIn(tree, scope)
	const what = `"${tree.op}"`
	const left = partOf(tree.left, what, scope)
	const right = partOf(tree.right, what, scope)
	switch (tree.op) {
		case '+':
		case '-':
		case '*':
		case '/':
		case '^':
			return checkArithmetic(tree.op, left, right)
		case '&':
			return { kind: 'join', left: toText(left), right: toText(right), type: TEXT }
		case 'and':
		case 'or':
			return { kind: tree.op, args: [toCondition(left), toCondition(right)], type: YESNO }
		default:
			return compare(tree.op, left, right, tree.span)
	}
}

function checkArithmetic(op: ArithmeticOp, left: Part, right: Part): Expr {
	const sum = op === '+' || op === '-'
	return (sum && (ofDates(op, left, right) ?? ofMoments(op, left, right))) || ofNumbers(op, left, right)
}

/** `date - date`, `date + days`, `days + date`. */
function ofDates(op: '+' | '-', left: Part, right: Part): Expr | undefined {
	const [a, b] = [left.expr.type.kind, right.expr.type.kind]
	if (a === 'date' && b === 'date' && op === '-') {
		const fn = FUNCTIONS.get('DAYS')
		if (!fn) throw new Error('Expected the function "DAYS" to be there')
		return { kind: 'call', fn, args: [left.expr, right.expr], type: NUMBER }
	}
	const [date, days] = a === 'date' ? [left, right] : [right, left]
	if (date.expr.type.kind !== 'date' || (op === '-' && date === right)) return undefined
	if (days.expr.type.kind === 'duration')
		throw new Refused(issue.wrongType(left.what, 'whole days beside a date', 'a time', days.span))
	const count = toNumber({ ...days, what: 'The number of days' })
	const by: Expr = op === '-' ? { kind: 'negate', arg: count, type: NUMBER } : count
	return { kind: 'call', fn: ADD_DAYS, args: [date.expr, by], type: DATE }
}

/** `moment - moment`, `moment + time`. */
function ofMoments(op: '+' | '-', left: Part, right: Part): Expr | undefined {
	const [a, b] = [left.expr.type.kind, right.expr.type.kind]
	if (a !== 'datetime') return undefined
	if (b === 'datetime')
		return op === '-' ? { kind: 'call', fn: TIME_BETWEEN, args: [left.expr, right.expr], type: DURATION } : undefined
	const time = toNumber({ ...right, what: 'The time' })
	const by: Expr = op === '-' ? { kind: 'negate', arg: time, type: DURATION } : time
	return { kind: 'call', fn: ADD_TIME, args: [left.expr, by], type: { kind: 'datetime' } }
}

/** A time keeps its kind when it is added to a time, or multiplied or divided by a number. */
function ofNumbers(op: ArithmeticOp, one: Part, other: Part): Expr {
	const [left, right] = [toNumber(one), toNumber(other)]
	const times = [left, right].filter((each) => each.type.kind === 'duration').length
	const stays =
		op === '+' || op === '-'
			? times > 0
			: (op === '*' && times === 1) || (op === '/' && times === 1 && left.type.kind === 'duration')
	return { kind: 'arithmetic', op, left, right, type: stays ? DURATION : NUMBER }
}

function checkIn(tree: Syntax & { kind: 'binary' }, scope: Scope): Expr {
	const item = partOf(tree.left, '"in"', scope)
	if (tree.right.kind === 'list') {
		const list = tree.right.items.map((each) => alike(item, partOf(each, '"in"', scope), each.span))
		return { kind: 'in', item: list[0]?.item ?? item.expr, list: list.map((pair) => pair.other), type: YESNO }
	}
	const many = partOf(tree.right, '"in"', scope)
	const { type } = many.expr
	if (many.expr.kind === 'field' && many.expr.column.type === 'several choices')
		return { kind: 'call', fn: AMONG, args: [toText(item), many.expr], type: YESNO }
	const expr =
		type.kind === 'rows' && item.expr.type.kind !== 'row'
			? toLabels(many.expr, type.table, scope.catalogue, scope.rows.length)
			: many.expr
	return isAmong(item, { ...many, expr })
}

/** `x in set` asks whether any row of the set equals x. */
function isAmong(item: Part, set: Part): Expr {
	const zero: Expr = { kind: 'literal', value: 0, type: NUMBER }
	const each = set.expr
	if (each.kind !== 'each')
		throw new Refused(issue.wrongType('"in"', 'a list or a set of values', describe(each.type), set.span))
	const where = compare('=', { ...set, expr: each.item }, item, set.span)
	const rows: Expr = { kind: 'filter', rows: each.rows, level: each.level, where, type: each.rows.type }
	const count: Expr = { kind: 'aggregate', name: 'COUNT', args: [rows], type: NUMBER }
	return { kind: 'compare', op: '>', left: count, right: zero, type: YESNO }
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
