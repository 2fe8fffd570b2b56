/**
 * Turns a request for rows and a person's rights into SQL with parameters.
 *
 * - Rows: only those that a line lets the reader see. Cells: a flag beside each group of cells with the same mask, so
 *   that what is not seen never leaves the thread that reads it.
 * - A page is read branch by branch: rows whose sort cell is seen and filled, by that cell; rows where it is blank, by
 *   number; rows where it is not seen, by number, so that a hidden order does not leak. Each branch is one statement
 *   that an index can serve; a CASE over the sorted column would lose the index (730 ms against 0.3).
 * - Pages follow a key, never an offset (0.5 ms against 471 ms at row 300,000).
 *
 *     page of moorings by next due for a diver
 *     → SELECT r.n, r.rev, r.c5, … FROM t3 AS r WHERE (r.c9 = ?) AND r.c7 IS NOT NULL AND (r.c7, r.n) > (?, ?) ORDER BY r.c7, r.n LIMIT ?
 */
import { isAlways, isNever, type Right, type Rights } from '../access/rights.ts'
import { compileCondition, compileFault, compileValue, newContext, type Context } from '../formula/compile.ts'
import { hasKey, isStored } from '../table/storage.ts'
import { getColumn, getTable, type Catalogue, type Column, type Table } from '../table/types.ts'
import type { Expr, Type } from '../formula/types.ts'
import { allOf, anyOf, joinSql, param, raw, sql, type Sql, type SqlValue } from './sql.ts'

export interface PageRequest {
	readonly table: Table
	readonly columns: readonly Column[]
	/** Conditions as the reader sees the data: filters, a screen's own condition. Folded. */
	readonly where: readonly Expr[]
	readonly sort?: { readonly column: Column; readonly descending: boolean } | undefined
	readonly after?: Cursor | undefined
	readonly limit: number
	/** Only this row. */
	readonly row?: number | undefined
	/** Whether to say, for each row, what the reader may do with it. */
	readonly offers?: boolean
	/** Only rows whose reference points to this row. */
	readonly pointing?: { readonly column: Column; readonly to: number } | undefined
}

export interface Cursor {
	readonly branch: number
	readonly value: SqlValue
	readonly n: number
}

export interface CellPlace {
	readonly column: Column
	/** Where the stored value stands in the row that comes back. */
	readonly at: number
	/** Where the flag stands that is 1 if the cell is seen; undefined if it always is. */
	readonly seenAt?: number
	readonly faultAt?: number
	/** For a reference: the label of its target, and the flag that the target is seen, unless it always is. */
	readonly label?: { readonly column: Column; readonly at: number; readonly seenAt?: number }
	readonly type: Type | undefined
}

/** What the reader may do with a row, each with the place of the flag that says so. */
export interface OfferPlaces {
	readonly change: readonly { readonly right: Right; readonly at: number }[]
	readonly removeAt: number | undefined
}

export interface PagePlan {
	readonly branches: readonly Sql[]
	readonly cells: readonly CellPlace[]
	readonly offers: OfferPlaces | undefined
	/** Where the sorted value stands, for the cursor. */
	readonly sortAt: number | undefined
}

export interface Plans {
	readonly catalogue: Catalogue
	readonly rights: Rights
}

/** `n` and `rev` stand first in every row. */
const FIXED = [raw('r.n'), raw('r.rev')]

export function planPage(request: PageRequest, { catalogue, rights }: Plans): PagePlan {
	const ctx = newContext('r', rights)
	const list = new SelectList(ctx, rights)
	const cells = request.columns
		.filter((column) => !isNever(rights.cell(request.table, column)))
		.map((column) => list.addCell(request.table, column, catalogue))
	const sort = request.sort && sortOf(request.table, request.sort.column, { catalogue, rights, ctx })
	const sortAt = sort ? list.addOnce(sort.value) : undefined
	const offers = request.offers ? list.addOffers(request.table) : undefined
	const base = baseConditions(request, rights, ctx)
	const order = request.sort?.descending ? raw(' DESC') : raw('')
	const branches = branchesOf(sort, base)
	const from = sql`SELECT ${joinSql(list.columns, ', ')} FROM t${request.table.id} AS r`
	const first = request.after?.branch ?? 0
	return {
		cells,
		offers,
		sortAt,
		branches: branches.map((branch, i) => {
			if (i < first) return NO_ROWS
			const past =
				request.after && i === first ? pastCursor(branch, request.after, request.sort?.descending ?? false) : []
			const by = branch.value ? sql`${branch.value}${order}, r.n${order}` : raw('r.n')
			return sql`${from} WHERE ${allOf([...branch.where, ...past])} ORDER BY ${by} LIMIT ${param(request.limit)}`
		})
	}
}

/** How many rows there are, counted up to a limit. */
export function planCount(request: Omit<PageRequest, 'limit'>, { rights }: Plans, limit: number): Sql {
	const base = baseConditions(request, rights, newContext('r', rights))
	return sql`SELECT count(*) FROM (SELECT 1 FROM t${request.table.id} AS r WHERE ${allOf(base)} LIMIT ${param(limit)})`
}

const NO_ROWS = raw('SELECT 1 WHERE 0')

interface Branch {
	readonly value: Sql | undefined
	readonly where: readonly Sql[]
}

function branchesOf(sort: Sort | undefined, base: readonly Sql[]): Branch[] {
	if (!sort) return [{ value: undefined, where: base }]
	const seen = sort.mask ? [...base, sort.mask] : base
	const branches: Branch[] = [
		{ value: sort.value, where: [...seen, sql`${sort.value} IS NOT NULL`] },
		{ value: undefined, where: [...seen, sql`${sort.value} IS NULL`] }
	]
	return sort.mask ? [...branches, { value: undefined, where: [...base, sql`(${sort.mask} IS NOT TRUE)`] }] : branches
}

function pastCursor(branch: Branch, after: Cursor, descending: boolean): Sql[] {
	if (!branch.value) return [sql`r.n > ${param(after.n)}`]
	const sign = raw(descending ? '<' : '>')
	return [sql`(${branch.value}, r.n) ${sign} (${param(after.value)}, ${param(after.n)})`]
}

function baseConditions(request: Omit<PageRequest, 'limit'>, rights: Rights, ctx: Context): Sql[] {
	const conditions: Sql[] = []
	const seen = rights.rows(request.table)
	if (!isAlways(seen)) conditions.push(compileCondition(seen, { ...ctx, sight: undefined }))
	for (const where of request.where) if (!isAlways(where)) conditions.push(compileCondition(where, ctx))
	if (request.row !== undefined) conditions.push(sql`r.n = ${param(request.row)}`)
	if (request.pointing) {
		const { column, to } = request.pointing
		conditions.push(sql`r.c${column.id} = ${param(to)}`)
		const mask = rights.cell(request.table, column)
		if (!isAlways(mask)) conditions.push(compileCondition(mask, { ...ctx, sight: undefined }))
	}
	return conditions
}

interface Sort {
	readonly value: Sql
	readonly mask: Sql | undefined
}

function sortOf(table: Table, column: Column, { catalogue, rights, ctx }: Plans & { ctx: Context }): Sort | undefined {
	const cell = rights.cell(table, column)
	if (isNever(cell)) return undefined
	const mask = isAlways(cell) ? undefined : compileCondition(cell, { ...ctx, sight: undefined })
	if (hasKey(column)) return { value: raw(`r.c${column.id}k`), mask }
	if (column.type === 'reference') {
		const target = getTable(catalogue, column.to ?? 0)
		const label = getColumn(target, target.label)
		return { value: labelOf(column, target, { rights, ctx }, sortedLabel(label)), mask }
	}
	if (isStored(column)) return { value: raw(`r.c${column.id}`), mask }
	return { value: layerValue(table, column, ctx), mask }
}

function sortedLabel(label: Column): (alias: string) => Sql {
	return (alias) => raw(`${alias}.c${label.id}${hasKey(label) ? 'k' : ''}`)
}

/** A layer's value as this reader sees it; in error it counts as blank. */
function layerValue(table: Table, column: Column, ctx: Context): Sql {
	const expr = fieldOf(table, column)
	const fault = compileFault(expr, ctx)
	const value = compileValue(expr, { ...ctx, sight: ctx.sight && withoutMask(ctx.sight, table, column) })
	return fault ? sql`(CASE WHEN (${fault}) IS NULL THEN ${value} END)` : value
}

/** The mask of the column itself is asked beside the value, once; inside, the operands stand bare. */
function withoutMask(
	sight: NonNullable<Context['sight']>,
	table: Table,
	column: Column
): NonNullable<Context['sight']> {
	const bare: Expr = { kind: 'literal', value: true, type: { kind: 'yesno' } }
	return { ...sight, cell: (t, c) => (t === table && c === column ? bare : sight.cell(t, c)) }
}

function fieldOf(table: Table, column: Column): Expr {
	const row: Expr = { kind: 'this', level: 0, type: { kind: 'row', table } }
	return { kind: 'field', of: row, table, column, type: column.computed?.expr.type ?? { kind: 'blank' } }
}

function labelOf(
	column: Column,
	target: Table,
	{ rights, ctx }: { rights: Rights; ctx: Context },
	read: (alias: string) => Sql
): Sql {
	const alias = ctx.newAlias()
	const inner: Context = { ...ctx, aliases: [alias], sight: undefined }
	const label = getColumn(target, target.label)
	const conditions = [sql`${raw(alias)}.n = r.c${column.id}`]
	for (const needed of [rights.rows(target), rights.cell(target, label)]) {
		if (!isAlways(needed)) conditions.push(compileCondition(needed, inner))
	}
	return sql`(SELECT ${read(alias)} FROM t${target.id} AS ${raw(alias)} WHERE ${allOf(conditions)})`
}

/** The columns of the SELECT, in order; flags that say the same are asked once. */
class SelectList {
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
		const seenAt = isAlways(mask) ? undefined : this.addFlag(compileCondition(mask, { ...this.ctx, sight: undefined }))
		const place = { column, type: column.computed?.expr.type, ...(seenAt === undefined ? {} : { seenAt }) }
		if (column.computed) return { ...place, ...this.addComputed(table, column, column.computed.stored) }
		const at = this.add(raw(`r.c${column.id}`))
		if (column.type !== 'reference') return { ...place, at }
		return { ...place, at, label: this.addLabel(column, getTable(catalogue, column.to ?? 0)) }
	}

	addOffers(table: Table): OfferPlaces {
		const flag = (right: Right) => this.addFlag(compileCondition(right.where, { ...this.ctx, sight: undefined }))
		const removes = this.rights
			.of('remove', table)
			.map((right) => compileCondition(right.where, { ...this.ctx, sight: undefined }))
		return {
			change: this.rights.of('change', table).map((right) => ({ right, at: flag(right) })),
			removeAt: removes.length === 0 ? undefined : this.addFlag(anyOf(removes))
		}
	}

	private addComputed(table: Table, column: Column, stored: boolean): { at: number; faultAt?: number } {
		const at = this.add(stored ? raw(`r.c${column.id}`) : layerValue(table, column, this.ctx))
		const fault = stored ? raw(`r.c${column.id}e`) : compileFault(fieldOf(table, column), this.ctx)
		return fault ? { at, faultAt: this.add(fault) } : { at }
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
		const key = condition.text + JSON.stringify(condition.params)
		const known = this.known.get(key)
		if (known !== undefined) return known
		const at = this.add(sql`(CASE WHEN ${condition} THEN 1 END)`)
		this.known.set(key, at)
		return at
	}
}
