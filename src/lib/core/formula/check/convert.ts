/**
 * The conversions that happen by themselves, and the refusals where none does.
 *
 * number → text, number → yes/no, an ISO literal → date, a row → its label where a text is wanted, an instant → its date
 * or its time of day where the workspace is. Nothing else.
 */
import { isIsoDate } from '../../schedule/calendar.ts'
import { findColumn, getColumn, type Catalogue, type Table } from '../../model/table.ts'
import { columnType, describe, isMany } from './column-type.ts'
import { DATE_OF_MOMENT, TIME_OF_MOMENT } from '../functions/times.ts'
import * as issue from '../syntax/issues.ts'
import { readTime } from '../../table/read-time.ts'
import type { CompareOp, Expr, FunctionEntry, Issue, ParameterType, Span, Type } from '../../model/formula.ts'

export const BLANK: Expr = { kind: 'literal', value: null, type: { kind: 'blank' } }
export const NUMBER: Type = { kind: 'number' }
export const TEXT: Type = { kind: 'text' }
export const YESNO: Type = { kind: 'yesno' }
export const DATE: Type = { kind: 'date' }
export const DURATION: Type = { kind: 'duration' }

/** Thrown while checking, and caught by `check`: the first thing that is wrong. */
export class Refused extends Error {
	readonly issue: Issue
	constructor(found: Issue) {
		super(found.message)
		this.issue = found
	}
}

/** A part of a formula as it was checked, and what it is called where it does not fit. */
export interface Part {
	readonly expr: Expr
	readonly what: string
	readonly span: Span
	readonly catalogue: Catalogue
}

export function toNumber({ expr, what, span }: Part): Expr {
	const { kind } = expr.type
	if (kind === 'number' || kind === 'blank' || kind === 'duration') return expr
	throw new Refused(issue.wrongType(what, 'a number', describe(expr.type), span))
}

export function toDate({ expr, what, span, catalogue }: Part): Expr {
	const { kind } = expr.type
	if (kind === 'date' || kind === 'blank') return expr
	if (kind === 'datetime') return inZone(DATE_OF_MOMENT, expr, catalogue)
	if (isIsoLiteral(expr)) return { ...expr, type: DATE }
	throw new Refused(issue.wrongType(what, 'a date', describe(expr.type), span))
}

export function toTime({ expr, what, span, catalogue }: Part): Expr {
	const { kind } = expr.type
	if (kind === 'duration' || kind === 'number' || kind === 'blank') return expr
	if (kind === 'datetime') return inZone(TIME_OF_MOMENT, expr, catalogue)
	const literal = expr.kind === 'literal' && typeof expr.value === 'string' ? readTime(expr.value) : undefined
	if (literal !== undefined) return { kind: 'literal', value: literal, type: DURATION }
	throw new Refused(issue.wrongType(what, 'a time', describe(expr.type), span))
}

export function toCondition({ expr, what, span }: Part): Expr {
	const { kind } = expr.type
	if (kind === 'yesno' || kind === 'number' || kind === 'blank') return expr
	throw new Refused(issue.wrongType(what, 'something that is true or not', describe(expr.type), span))
}

export function toText(part: Part): Expr {
	const { expr, what, span } = part
	const { type } = expr
	switch (type.kind) {
		case 'text':
		case 'blank':
			return expr
		case 'row': {
			const label = getColumn(type.table, type.table.label)
			if (label.type === 'reference' || label.type === 'computed') break
			const field: Expr = {
				kind: 'field',
				of: expr,
				table: type.table,
				column: label,
				type: columnType(part.catalogue, label)
			}
			return toText({ ...part, expr: field })
		}
		case 'rows':
		case 'set':
			break
		default:
			return { kind: 'totext', arg: expr, type: TEXT }
	}
	throw new Refused(issue.wrongType(what, 'a text', describe(type), span))
}

/** A part for a parameter of a function. `level`: how many rows are in reach, for the label of a set of rows. */
export function toParameter(type: ParameterType, part: Part, level: number): Expr {
	switch (type) {
		case 'number':
			return toNumber(part)
		case 'text':
			return toText(part)
		case 'date':
			return toDate(part)
		case 'time':
			return toTime(part)
		case 'yesno':
			return toCondition(part)
		case 'numbers':
			return toSet(part, level, toNumber)
		case 'texts':
			return toSet(part, level, toText)
		case 'dates':
			return toSet(part, level, toDate)
	}
}

/** Brings every value of a set to a type; a single value is a set of one. */
export function toSet(part: Part, level: number, convert: (part: Part) => Expr): Expr {
	const { expr } = part
	if (expr.type.kind === 'rows')
		return toSet({ ...part, expr: toLabels(expr, expr.type.table, part.catalogue, level) }, level, convert)
	if (expr.kind === 'each') {
		const item = convert({ ...part, expr: expr.item })
		return { ...expr, item, type: { kind: 'set', of: item.type } }
	}
	const items = (expr.kind === 'list' ? expr.items : [expr]).map((item) => convert({ ...part, expr: item }))
	return { kind: 'list', items, type: { kind: 'set', of: items[0]?.type ?? { kind: 'blank' } } }
}

/** The set of the labels of a set of rows: how a set is read where values are wanted. */
export function toLabels(rows: Expr, table: Table, catalogue: Catalogue, level: number): Expr {
	const label = getColumn(table, table.label)
	const row: Expr = { kind: 'this', level, type: { kind: 'row', table } }
	const type = columnType(catalogue, label)
	const item: Expr = { kind: 'field', of: row, table, column: label, type }
	return { kind: 'each', rows, level, item, type: { kind: 'set', of: type } }
}

export function compare(op: CompareOp, left: Part, right: Part, span: Span): Expr {
	const pair = alike(left, right, span)
	const ordered = op !== '=' && op !== '<>'
	if (ordered && (pair.item.type.kind === 'row' || pair.item.type.kind === 'yesno')) {
		const what = describe(pair.item.type)
		throw new Refused(issue.cannotCompare(what, describe(pair.other.type), 'These have no order.', span))
	}
	return { kind: 'compare', op, left: pair.item, right: pair.other, type: YESNO }
}

/** Brings two operands to one type, or refuses with the remedy. */
export function alike(left: Part, right: Part, span: Span): { item: Expr; other: Expr } {
	const [a, b] = [left.expr.type, right.expr.type]
	const as = (item: Expr, other: Expr) => ({ item, other })
	if (a.kind === 'blank' || b.kind === 'blank') return as(left.expr, right.expr)
	if (a.kind === 'row' && b.kind === 'row' && a.table.id === b.table.id) return as(left.expr, right.expr)
	if (a.kind === b.kind && a.kind !== 'row' && a.kind !== 'mixed' && !isMany(a)) return as(left.expr, right.expr)
	if (isDay(a) && (isDay(b) || isIsoLiteral(right.expr))) return as(toDate(left), toDate(right))
	if (isDay(b) && isIsoLiteral(left.expr)) return as(toDate(left), toDate(right))
	if (isTime(a) && isTime(b)) return as(left.expr, right.expr)
	throw new Refused(issue.cannotCompare(describe(a), describe(b), remedyFor(a, b), span))
}

export function unify(a: Type, b: Type, what: string, span: Span): Type {
	if (a.kind === 'blank') return b
	if (b.kind === 'blank') return a
	if (a.kind === 'row' && b.kind === 'row' && a.table.id === b.table.id) return a
	if (a.kind === b.kind && a.kind !== 'row' && !isMany(a)) return a
	if (isTime(a) && isTime(b)) return NUMBER
	const mixes = (type: Type) => type.kind === 'number' || type.kind === 'text' || type.kind === 'mixed'
	if (mixes(a) && mixes(b)) return { kind: 'mixed' }
	throw new Refused(
		issue.cannotCompare(describe(a), describe(b), `Both outcomes of ${what} must be of one kind.`, span)
	)
}

export function isIsoLiteral(expr: Expr): boolean {
	return expr.kind === 'literal' && typeof expr.value === 'string' && isIsoDate(expr.value)
}

function inZone(fn: FunctionEntry, expr: Expr, catalogue: Catalogue): Expr {
	const zone: Expr = { kind: 'literal', value: catalogue.timeZone, type: TEXT }
	return { kind: 'call', fn, args: [expr, zone], type: { kind: fn.result } }
}

function isDay(type: Type): boolean {
	return type.kind === 'date' || type.kind === 'datetime'
}

function isTime(type: Type): boolean {
	return type.kind === 'duration' || type.kind === 'number'
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
