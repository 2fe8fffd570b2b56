/**
 * Totals that can be kept in the parent's row and brought up to date by each change of a child, so that reading one
 * costs the same for three children as for three thousand.
 *
 * - Only totals whose value follows from the children's own rows: `COUNT(FILTER(inspections; verdict = "Replace"))`.
 * - Sums of whole or scaled numbers only: those of free decimals would drift, adding and taking away.
 * - A total serves a reader who sees every child of the row: always, or by a condition that is the same for all
 *   children of one row, such as `mooring.harbour = me.harbour`; or who sees the children that hold one value in a
 *   column, such as `diver = me`, for which it is kept value by value. For others it is worked out from what they see.
 */
import { isAlways } from '../syntax/constant.ts'
import { scaleOf } from '../../table/storage.ts'
import { getColumn, type Column, type Table } from '../../model/table.ts'
import { isErrorValue, type Expr, type Rollup } from '../../model/formula.ts'
import { isSameTree, isVolatile, mapParts, someNode } from '../syntax/walk.ts'

/** The same tree, with a place for each total in it that can be kept. `column`: the computed column it belongs to. */
export function withRollups(expr: Expr, column: number): Expr {
	let count = 0
	const visit = (node: Expr): Expr => {
		const mapped = mapParts(node, visit)
		if (mapped.kind !== 'aggregate') return mapped
		const total = totalOf(mapped)
		return total ? { ...mapped, rollup: { ...total, place: `c${column}t${count++}` } } : mapped
	}
	return visit(expr)
}

/** All totals of a tree that are kept. */
export function rollupsOf(expr: Expr): readonly Rollup[] {
	const found: Rollup[] = []
	someNode(expr, (node) => {
		if (node.kind === 'aggregate' && node.rollup) found.push(node.rollup)
		return false
	})
	return found
}

/** What a total is put together from in the parent's row: how many there are, their sum, or the extreme. */
export type RollupPart = 'count' | 'sum' | 'extreme'

/** The parts that a kind of total is kept as, the one that orders rows first. */
export function partsOfTotal({ name }: Rollup): readonly RollupPart[] {
	if (name === 'AVERAGE') return ['sum', 'count']
	if (name === 'SUM') return ['sum']
	return name === 'MIN' || name === 'MAX' ? ['extreme'] : ['count']
}

/** What the names of the places of its parts end with; each has its own, since an empty one differs. */
export const PART_NAMES = { count: 'n', sum: 's', extreme: 'x', mean: 'm' } as const

/** The name of a part's place in the parent's table. */
export function placeOf({ place }: Rollup, part: RollupPart): string {
	return `${place}${PART_NAMES[part]}`
}

/** The place of a mean: worked out by the store from the sum and the count beside it, so that an index can order by it. */
export function meanPlace({ place }: Rollup): string {
	return `${place}${PART_NAMES.mean}`
}

/** The place that orders rows as a computed column does which is one total and nothing else. */
export function rollupSortPlace({ computed }: Column): string | undefined {
	const total = computed?.expr.kind === 'aggregate' ? computed.expr.rollup : undefined
	if (!total) return undefined
	const [part = 'count'] = partsOfTotal(total)
	return total.name === 'AVERAGE' ? meanPlace(total) : placeOf(total, part)
}

function totalOf(expr: Expr & { kind: 'aggregate' }): Omit<Rollup, 'place'> | undefined {
	const [set] = expr.args
	if (!set || expr.args.length !== 1) return undefined
	const item = set.kind === 'each' ? itemOf(set) : undefined
	if (set.kind === 'each' && (!item || !canTotal(expr.name, item))) return undefined
	const rows = childrenOf(set.kind === 'each' ? set.rows : set)
	if (!rows) return undefined
	const reads = columnsRead(rows.where)
	return reads && { name: expr.name, ...rows, item, reads }
}

/** The plain column of the child that a set of values is made of. */
function itemOf({ level, item }: Expr & { kind: 'each' }): Column | undefined {
	const isOwn = level === 1 && item.kind === 'field' && item.of.kind === 'this' && item.of.level === 1
	return isOwn && !item.column.computed ? item.column : undefined
}

const EXACT: ReadonlySet<Column['type']> = new Set(['whole number', 'money', 'percent', 'decimal', 'time', 'duration'])
const ORDERED: ReadonlySet<Column['type']> = new Set([...EXACT, 'date', 'date and time'])

function canTotal(name: Rollup['name'], column: Column): boolean {
	if (name === 'COUNT' || name === 'COUNTA') return true
	if (name === 'MIN' || name === 'MAX') return ORDERED.has(column.type)
	return EXACT.has(column.type) && (column.type !== 'decimal' || scaleOf(column) > 1)
}

function childrenOf(set: Expr): Pick<Rollup, 'parent' | 'child' | 'by' | 'where'> | undefined {
	if (set.kind === 'filter') {
		const inner = set.level === 1 ? childrenOf(set.rows) : undefined
		return inner && { ...inner, where: [...inner.where, set.where] }
	}
	if (set.kind !== 'children' || set.type.kind !== 'rows') return undefined
	const { of, backReference } = set
	if (of.kind !== 'this' || of.level !== 0 || of.type.kind !== 'row') return undefined
	const child = set.type.table
	return { parent: of.type.table, child, by: getColumn(child, backReference.column), where: [] }
}

/** The columns of the child that conditions read; undefined where they read anything else. */
function columnsRead(where: readonly Expr[]): readonly Column[] | undefined {
	const found = new Set<Column>()
	const strays = (node: Expr): boolean => {
		if (node.kind === 'children') return true
		if (node.kind === 'this') return node.level !== 1
		if (node.kind !== 'field') return false
		if (node.of.kind !== 'this' || (node.column.computed && !node.column.computed.stored)) return true
		found.add(node.column)
		return false
	}
	return where.some((condition) => isVolatile(condition) || someNode(condition, strays)) ? undefined : [...found]
}

/** Where a reader sees rows and cells of a table, as conditions over one row of it. */
interface Seeing {
	rows(table: Rollup['child']): Expr
	cell(table: Rollup['child'], column: Column): Expr
}

export interface WhereServed {
	/** The rows on which what is kept is what the reader would count, as a condition over the parent. */
	readonly where: Expr
	/** Whether on all other rows the reader sees no child at all. */
	readonly elseNone: boolean
	/** On all other rows the reader sees the children that hold this value, and no others. */
	readonly elseOf: OneValue | undefined
}

/** `diver = 7`: a column of the child and the value that it holds. */
export interface OneValue {
	readonly column: Column
	readonly value: Expr & { readonly kind: 'literal' }
}

/** Where a kept total serves a reader who sees the parent's row. */
export function whereServed(total: Rollup, visibility: Seeing): WhereServed {
	const { parent, child, by, item, reads } = total
	const cells = [by, ...reads, ...(item ? [item] : [])].map((column) =>
		constantPart(visibility.cell(child, column), total)
	)
	const rows = constantPart(visibility.rows(child), total)
	const all = [rows, ...cells].map((part) => part.where)
	const where = impliedBy(visibility.rows(parent), all) ? YES : allOf(all)
	const elseNone = rows.whole && cells.every((cell) => cell.where === YES || isSameTree(cell.where, rows.where))
	return { where, elseNone, elseOf: elseNone ? undefined : oneValueOf(total, visibility) }
}

/** The value by which the reader sees children where no condition over their row lets them. */
function oneValueOf(total: Rollup, visibility: Seeing): OneValue | undefined {
	const { child, by, item, reads } = total
	const rows = visibility.rows(child)
	const cells = [by, ...reads, ...(item ? [item] : [])].map((column) => visibility.cell(child, column))
	if (!cells.every((cell) => isAlways(cell) || isSameTree(cell, rows))) return undefined
	const ways = rows.kind === 'or' ? rows.args : [rows]
	const [way, ...more] = ways.filter((each) => !constantPart(each, total).whole)
	return more.length === 0 && way ? asOneValue(way, child) : undefined
}

function asOneValue(expr: Expr, child: Table): OneValue | undefined {
	if (expr.kind !== 'compare' || expr.op !== '=') return undefined
	const [field, value] = expr.left.kind === 'field' ? [expr.left, expr.right] : [expr.right, expr.left]
	if (field.kind !== 'field' || field.of.kind !== 'this' || value.kind !== 'literal') return undefined
	// Blank equals nothing, so there is no value to look for.
	if (value.value === null || isErrorValue(value.value)) return undefined
	const column = child.comparedWithMe?.find((each) => each.id === field.column.id)
	return column && { column, value }
}

/** The table in which a total is kept for each row and each value of a column of its children. */
export function placeByValue({ place }: Rollup, column: Column): string {
	return `${place}_${column.id}`
}

const YES: Expr = { kind: 'literal', value: true, type: { kind: 'yesno' } }
const NO: Expr = { kind: 'literal', value: false, type: { kind: 'yesno' } }

interface ConstantPart {
	/** Holds for a parent only if the condition holds for all its children. */
	readonly where: Expr
	/** Whether it holds for a child only if it holds for its parent, too. */
	readonly whole: boolean
}

/** What of a condition over the child is the same for all children of one row, said of that row. */
function constantPart(expr: Expr, total: Rollup): ConstantPart {
	if (expr.kind === 'literal') return { where: isAlways(expr) ? YES : NO, whole: true }
	if (expr.kind === 'or') {
		const parts = expr.args.map((arg) => constantPart(arg, total))
		const some = parts.map((part) => part.where).filter((where) => where !== NO)
		return { where: anyOf(some), whole: parts.every((part) => part.whole) }
	}
	const where = ofParent(expr, total)
	return where ? { where, whole: true } : { where: NO, whole: false }
}

/** `mooring.harbour = 3`, said of a child, is `harbour = 3`, said of its mooring. */
function ofParent(expr: Expr, { by, parent }: Rollup): Expr | undefined {
	let stays = true
	const visit = (node: Expr): Expr => {
		const isOwn = node.kind === 'field' && node.of.kind === 'this' && node.of.level === 0
		if (isOwn && node.column.id === by.id) return { kind: 'this', level: 0, type: { kind: 'row', table: parent } }
		if (node.kind === 'granted' || (node.kind === 'this' && node.level === 0)) stays = false
		return mapParts(node, visit)
	}
	const moved = visit(expr)
	return stays ? moved : undefined
}

/** Whether rows that fit one condition fit all of others, as far as their texts tell. */
function impliedBy(rows: Expr, others: readonly Expr[]): boolean {
	const ways = rows.kind === 'or' ? rows.args : [rows]
	const admits = (other: Expr, way: Expr) =>
		other === YES || (other.kind === 'or' ? other.args : [other]).some((each) => isSameTree(each, way))
	return others.every((other) => ways.every((way) => admits(other, way)))
}

function allOf(conditions: readonly Expr[]): Expr {
	if (conditions.includes(NO)) return NO
	const open = conditions.filter(
		(condition, i) => condition !== YES && !conditions.slice(0, i).some((each) => isSameTree(each, condition))
	)
	const [only] = open
	return open.length <= 1 ? (only ?? YES) : { kind: 'and', args: open, type: { kind: 'yesno' } }
}

function anyOf(conditions: readonly Expr[]): Expr {
	if (conditions.includes(YES)) return YES
	const [only] = conditions
	return conditions.length <= 1 ? (only ?? NO) : { kind: 'or', args: conditions, type: { kind: 'yesno' } }
}
