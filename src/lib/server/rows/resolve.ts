/**
 * What a reader asks for, checked against what they can know of: tables, columns and rows by what they see of them, conditions
 * folded for them. What reads otherwise than by pages, groups for one, begins here too.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import { checkCondition } from '$lib/core/formula/check/check.ts'
import type { GivenRow, Here } from '$lib/core/formula/check/check-call.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import { findColumn, type Catalogue, type Column, type Table } from '$lib/core/model/table.ts'
import { labelIs, labelStarts } from '$lib/core/query/by-label.ts'
import { toCondition, type Filter } from '$lib/core/query/filter.ts'
import { planCount } from '$lib/core/query/plan.ts'
import type { PageRequest, Plans } from '$lib/core/query/request.ts'
import { countsAnew } from '$lib/core/query/sorted-value.ts'
import { noteOrder } from '../derived/order-index.ts'
import { standingOf, type Actor, type Standing } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { openCursor } from './cursor.ts'
import { fewCandidates } from './text-candidates.ts'

export interface RowsRequest {
	readonly table: number
	/** All that are seen, if left out. */
	readonly columns?: readonly number[] | undefined
	/** Conditions as text, judged as the reader sees the data. They come from documents, never from a client. */
	readonly where?: readonly string[] | undefined
	/** The row that they read as `this`: one that is being filled in, say. */
	readonly given?: GivenRow | undefined
	/** Rows that they read as `here.NAME`. */
	readonly here?: Here | undefined
	readonly sort?: SortBy | undefined
	/** Further columns to sort by, where the first is the same. */
	readonly then?: readonly SortBy[] | undefined
	/** What a reader filters by hand, judged as they see the data. */
	readonly filters?: readonly Filter[] | undefined
	/** How many rows after the cursor the page starts; for jumps within a long list. */
	readonly skip?: number | undefined
	readonly after?: string | undefined
	readonly limit?: number | undefined
	readonly row?: string | undefined
	readonly pointing?: { readonly column: number; readonly to: string } | undefined
	readonly offers?: boolean | undefined
	/** A text that stands in one of some columns. */
	readonly find?: { readonly text: string; readonly columns: readonly number[] } | undefined
	/** Conditions that each row is told to fit or not. They come from documents, as `where` does. */
	readonly flags?: readonly string[] | undefined
	/** Only rows whose label starts so: for choosing a row to refer to. */
	readonly labelStarts?: string | undefined
	/** Only rows whose label is this text. */
	readonly labelIs?: string | undefined
}

export interface SortBy {
	readonly column: number
	readonly descending: boolean
}

export interface Resolved extends PageRequest {
	/** A column by which the rows are not ordered, though it was asked. */
	readonly unsorted?: number
}

/** As many rows as are read where nobody says how many. */
export const PAGE = 50
const MOST = 1_000
/** More rows than this are not ordered by a total that has to be counted anew for each of them. */
const MOST_COUNTED_ANEW = 10_000
/** The number of no row. */
const NO_ROW = -1

/** For what reads otherwise than by pages: the same request, checked against the same rights. */
export function withResolved<T>(
	store: Store,
	actor: Actor,
	{ request, now }: { request: RowsRequest; now: number },
	work: (asked: PageRequest | undefined, plans: Plans) => T
): T {
	const standing = standingOf(store, actor, now)
	const plans = { catalogue: store.workspace().catalogue, rights: standing.rights }
	return work(resolve(store, standing, request), plans)
}

/** Undefined where the answer is "nothing" whatever the rows. */
export function resolve(store: Store, standing: Standing, request: RowsRequest): Resolved | undefined {
	const { catalogue } = store.workspace()
	const table = catalogue.tables.get(request.table)
	if (!table || isNever(standing.rights.rows(table))) return undefined
	const columns = request.columns
		? request.columns.map((id) => findColumn(table, id)).filter((column) => column !== undefined)
		: table.columns
	// An id that is none is asked for like one whose row is not seen, so that nobody learns which of them it was.
	const row = request.row === undefined ? undefined : (store.ids.fromId(table.id, request.row) ?? NO_ROW)
	const pointing = request.pointing && resolvePointing(request.pointing, { store, table, standing })
	if (request.pointing && !pointing) return undefined
	const where = conditionsOf(store, table, request, standing)
	const keys = [request.sort, ...(request.then ?? [])].flatMap((by) => {
		const column = by && findColumn(table, by.column)
		return column ? [{ column, descending: by.descending }] : []
	})
	const among = fewCandidates(store, table, request.filters ?? [])
	const unsorted = tooMuchToOrder(store, standing, { table, where, among, row, pointing, keys })
	const [sort, ...then] = unsorted ? keys.filter(({ column }) => !countsAnew(column, standing.rights)) : keys
	// By what is not seen nothing is ordered.
	if (sort && !isNever(standing.rights.cell(table, sort.column))) noteOrder(store, table, sort.column)
	return {
		table,
		columns,
		where,
		among,
		sort,
		then,
		...(unsorted ? { unsorted: unsorted.id } : {}),
		after: openCursor(store, table, request.after),
		limit: Math.min(Math.max(1, request.limit ?? PAGE), MOST),
		row,
		pointing,
		seen: cellsSeen(request.filters ?? [], table, catalogue),
		offers: request.offers ?? false,
		flags: (request.flags ?? []).map((text) => conditionIn(text, { store, table, standing, here: request.here }))
	}
}

/** The cells that filters ask to be seen, whatever stands there. */
function cellsSeen(filters: readonly Filter[], table: Table, catalogue: Catalogue): PageRequest['seen'] & object {
	return filters.flatMap(({ is, column: id }) => {
		const column = is === 'seen' ? findColumn(table, id) : undefined
		return column ? [{ column, target: catalogue.tables.get(column.to ?? 0) }] : []
	})
}

/** The first column asked for by which so many rows are not ordered; what cannot be known at all orders nothing anyway. */
function tooMuchToOrder(
	store: Store,
	{ rights }: Standing,
	{
		keys,
		...asked
	}: Pick<PageRequest, 'table' | 'where' | 'among' | 'row' | 'pointing'> & {
		readonly keys: readonly { column: Column }[]
	}
): Column | undefined {
	const anew = keys.find(({ column }) => !isNever(rights.cell(asked.table, column)) && countsAnew(column, rights))
	if (!anew || asked.row !== undefined) return undefined
	const count = countUnder(store, rights, { ...asked, limit: MOST_COUNTED_ANEW + 1 })
	return count > MOST_COUNTED_ANEW ? anew.column : undefined
}

/** What points to a row that the reader does not see is not told, as the label of that row is not. */
function resolvePointing(
	pointing: { column: number; to: string },
	{ store, table, standing }: OfTable
): PageRequest['pointing'] {
	const column = findColumn(table, pointing.column)
	const target = column?.to === undefined ? undefined : store.workspace().catalogue.tables.get(column.to)
	if (!column || !target) return undefined
	const row = store.ids.fromId(target.id, pointing.to) ?? NO_ROW
	const isSeen = countUnder(store, standing.rights, { table: target, where: [], row, limit: 1 }) > 0
	return { column, to: isSeen ? row : NO_ROW }
}

function conditionsOf(store: Store, table: Table, request: RowsRequest, standing: Standing): Expr[] {
	const { catalogue } = store.workspace()
	const conditions = (request.where ?? [])
		.filter((text) => text.trim() !== '')
		.map((text) => conditionIn(text, { store, table, standing, given: request.given, here: request.here }))
	if (request.find) conditions.push(foundIn(request.find, { store, table, standing }))
	for (const filter of request.filters ?? []) {
		const condition = toCondition(filter, table, catalogue)
		if (condition) conditions.push(fold(condition, standing.moment))
	}
	if (request.labelIs !== undefined) conditions.push(labelIs(request.labelIs, table, catalogue))
	if (request.labelStarts) conditions.push(...labelStarts(request.labelStarts, table, catalogue))
	return conditions
}

interface OfTable {
	readonly store: Store
	readonly table: Table
	readonly standing: Standing
	readonly given?: GivenRow | undefined
	readonly here?: Here | undefined
}

/** A condition of a document, folded for its reader. */
function conditionIn(text: string, { store, table, standing, given, here }: OfTable): Expr {
	const { catalogue } = store.workspace()
	const { expr, issues } = checkCondition(text, { catalogue, rows: [table], me: true, given, here })
	if (!expr) throw new AppError('invalid', issues[0]?.message ?? 'This condition cannot be read.', { issues })
	return fold(expr, standing.moment)
}

/** In any of the columns, as their reader sees them. */
function foundIn({ text, columns }: NonNullable<RowsRequest['find']>, { store, table, standing }: OfTable): Expr {
	const { catalogue } = store.workspace()
	const any = columns.flatMap((column) => toCondition({ column, is: 'contains', text }, table, catalogue) ?? [])
	return fold({ kind: 'or', args: any, type: { kind: 'yesno' } }, standing.moment)
}

/**
 * How many rows of a table some rights let through, counted up to `limit`: for what lines of access come to, of which
 * only the table's keepers are told.
 */
export function countUnder(
	store: Store,
	rights: Rights,
	{ limit, ...asked }: Pick<PageRequest, 'table' | 'where' | 'limit' | 'among' | 'row' | 'pointing'>
): number {
	const query = planCount({ columns: [], ...asked }, { catalogue: store.workspace().catalogue, rights }, limit)
	return Number(store.select(query)[0]?.[0] ?? 0)
}
