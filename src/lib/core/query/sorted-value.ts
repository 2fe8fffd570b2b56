/** What a column comes to for a reader where rows are ordered or grouped by it, and where that would take counting anew. */
import { isAlways, isNever } from '../formula/syntax/constant.ts'
import type { Rights } from '../access/rights.ts'
import { compileCondition, compileError, compileValue } from '../formula/sql/compile.ts'
import type { Context } from '../formula/sql/sql-context.ts'
import { rollupSortPlace, whereServed } from '../formula/sql/rollups.ts'
import type { Expr, Rollup } from '../model/formula.ts'
import { partsOf } from '../formula/syntax/walk.ts'
import { comparedPlace, hasKey, isStored } from '../table/storage.ts'
import { getColumn, getTable, type Column, type Table } from '../model/table.ts'
import { labelOf } from './label-of.ts'
import type { Plans } from './request.ts'
import { raw, sql, type Sql } from '../sql/sql.ts'

export interface Sort {
	readonly value: Sql
	readonly mask: Sql | undefined
}

export function sortOf(
	table: Table,
	column: Column,
	{ catalogue, rights, ctx }: Plans & { ctx: Context }
): Sort | undefined {
	const cell = rights.cell(table, column)
	if (isNever(cell)) return undefined
	const mask = isAlways(cell) ? undefined : compileCondition(cell, { ...ctx, visibility: undefined })
	if (hasKey(column)) return { value: raw(`r.c${column.id}k`), mask }
	if (column.type === 'reference') {
		const target = getTable(catalogue, column.to ?? 0)
		const label = getColumn(target, target.label)
		return { value: labelOf(column, target, { rights, ctx }, sortedLabel(label)), mask }
	}
	if (isStored(column)) return { value: raw(`r.c${column.id}`), mask }
	const kept = rollupSort(column, rights)
	return { value: kept === undefined ? virtualValue(table, column, ctx) : raw(`r.${kept}`), mask }
}

/** The place of a kept total that is the whole of a column, where it serves the reader on every row: an index serves it. */
function rollupSort(column: Column, rights: Rights): string | undefined {
	const { computed } = column
	const total = computed?.expr.kind === 'aggregate' ? computed.expr.rollup : undefined
	if (!computed || !total) return undefined
	return computed.vouched || isAlways(whereServed(total, rights).where) ? rollupSortPlace(column) : undefined
}

/**
 * Whether ordering by a column means to count other rows anew for each of its own: a total that is not kept, or is kept of
 * more than this reader sees, here or in a column that it reads. `rights`: undefined where the builder vouched for the result.
 */
export function countsAnew({ computed }: Column, rights: Rights | undefined): boolean {
	if (!computed || computed.stored) return false
	const reader = computed.vouched ? undefined : rights
	const isAnew = (node: Expr): boolean => {
		if (node.kind === 'children') return true
		if (node.kind === 'aggregate' && node.rollup) return reader !== undefined && !isServed(node.rollup, reader)
		if (node.kind === 'field' && countsAnew(node.column, reader)) return true
		return partsOf(node).some(isAnew)
	}
	return isAnew(computed.expr)
}

/** Whether a kept total, or what is kept of it value by value, is what the reader would count on every row. */
function isServed(total: Rollup, rights: Rights): boolean {
	const { where, elseNone, elseOf } = whereServed(total, rights)
	return isAlways(where) || elseNone || elseOf !== undefined
}

function sortedLabel(label: Column): (alias: string) => Sql {
	return (alias) => raw(`${alias}.${comparedPlace(label)}`)
}

/** A virtual column's value as this reader sees it; in error it counts as blank. */
export function virtualValue(table: Table, column: Column, ctx: Context): Sql {
	const expr = fieldOf(table, column)
	const error = compileError(expr, ctx)
	const value = compileValue(expr, { ...ctx, visibility: ctx.visibility && withoutMask(ctx.visibility, column) })
	return error ? sql`(CASE WHEN (${error}) IS NULL THEN ${value} END)` : value
}

/** The mask of the column itself is asked beside the value, once; inside, the operands stand bare. */
function withoutMask(
	visibility: NonNullable<Context['visibility']>,
	column: Column
): NonNullable<Context['visibility']> {
	const bare: Expr = { kind: 'literal', value: true, type: { kind: 'yesno' } }
	return { ...visibility, cell: (t, c) => (c === column ? bare : visibility.cell(t, c)) }
}

export function fieldOf(table: Table, column: Column): Expr {
	const row: Expr = { kind: 'this', level: 0, type: { kind: 'row', table } }
	return { kind: 'field', of: row, table, column, type: column.computed?.expr.type ?? { kind: 'blank' } }
}
