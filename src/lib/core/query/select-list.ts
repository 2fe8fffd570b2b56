/** The columns of a page's SELECT: cells, the flags that say which of them are seen, labels, and what may be done. */
import { isAlways } from '../formula/syntax/constant.ts'
import type { Right, Rights } from '../access/rights.ts'
import { compileCondition, compileError } from '../formula/sql/compile.ts'
import type { Context } from '../formula/sql/sql-context.ts'
import type { Type } from '../model/formula.ts'
import { getColumn, getTable, type Catalogue, type Column, type Table } from '../model/table.ts'
import { labelOf } from './label-of.ts'
import { fieldOf, virtualValue } from './sorted-value.ts'
import { anyOf, raw, sql, type Sql } from '../sql/sql.ts'

export interface CellPlace {
	readonly column: Column
	/** Where the stored value stands in the row that comes back. */
	readonly at: number
	/** Where the flag stands that is 1 if the cell is seen; undefined if it always is. */
	readonly seenAt?: number
	readonly errorAt?: number
	/** For a reference: the label of its target, and the flag that the target is seen, unless it always is. */
	readonly label?: { readonly column: Column; readonly at: number; readonly seenAt?: number }
	readonly type: Type | undefined
}

/** What the reader may do with a row, each with the place of the flag that says so. */
export interface OfferPlaces {
	readonly change: readonly { readonly right: Right; readonly at: number }[]
	readonly removeAt: number | undefined
}

/** `n` and `rev` stand first in every row. */
const FIXED = [raw('r.n'), raw('r.rev')]

/** The columns of the SELECT, in order; flags that say the same are asked once. */
export class SelectList {
	readonly columns: Sql[] = [...FIXED]
	private readonly ctx: Context
	private readonly rights: Rights
	private readonly known = new Map<string, number>()

	constructor(ctx: Context, rights: Rights) {
		this.ctx = ctx
		this.rights = rights
	}

	add(column: Sql): number {
		return this.columns.push(column) - 1
	}

	/** A plain column that stands there already is not asked twice. */
	addOnce(column: Sql): number {
		const known = this.columns.findIndex(
			(each) => each.text === column.text && column.params.length === 0 && each.params.length === 0
		)
		return known >= 0 ? known : this.add(column)
	}

	addCell(table: Table, column: Column, catalogue: Catalogue): CellPlace {
		const mask = this.rights.cell(table, column)
		const seenAt = isAlways(mask)
			? undefined
			: this.addFlag(compileCondition(mask, { ...this.ctx, visibility: undefined }))
		const place = { column, type: column.computed?.expr.type, ...(seenAt === undefined ? {} : { seenAt }) }
		if (column.computed) return { ...place, ...this.addComputed(table, column, column.computed.stored) }
		const at = this.add(raw(`r.c${column.id}`))
		if (column.type !== 'reference') return { ...place, at }
		return { ...place, at, label: this.addLabel(column, getTable(catalogue, column.to ?? 0)) }
	}

	addOffers(table: Table): OfferPlaces {
		const flag = (right: Right) => this.addFlag(compileCondition(right.where, { ...this.ctx, visibility: undefined }))
		const removes = this.rights
			.of('remove', table)
			.map((right) => compileCondition(right.where, { ...this.ctx, visibility: undefined }))
		return {
			change: this.rights.of('change', table).map((right) => ({ right, at: flag(right) })),
			removeAt: removes.length === 0 ? undefined : this.addFlag(anyOf(removes))
		}
	}

	private addComputed(table: Table, column: Column, stored: boolean): { at: number; errorAt?: number } {
		const at = this.add(stored ? raw(`r.c${column.id}`) : virtualValue(table, column, this.ctx))
		const error = stored ? raw(`r.c${column.id}e`) : compileError(fieldOf(table, column), this.ctx)
		return error ? { at, errorAt: this.add(error) } : { at }
	}

	private addLabel(column: Column, target: Table): NonNullable<CellPlace['label']> {
		const label = getColumn(target, target.label)
		const places = { rights: this.rights, ctx: this.ctx }
		const at = this.add(labelOf(column, target, places, (alias) => raw(`${alias}.c${label.id}`)))
		const always = [this.rights.rows(target), this.rights.cell(target, label)].every(isAlways)
		if (always) return { column: label, at }
		return { column: label, at, seenAt: this.add(labelOf(column, target, places, () => raw('1'))) }
	}

	private addFlag(condition: Sql): number {
		const key = condition.text + condition.params.map((value) => `${typeof value} ${String(value)}`).join('\n')
		const known = this.known.get(key)
		if (known !== undefined) return known
		const at = this.add(sql`(CASE WHEN ${condition} THEN 1 END)`)
		this.known.set(key, at)
		return at
	}
}
