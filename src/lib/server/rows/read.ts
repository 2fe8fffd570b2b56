/**
 * The one door out: every read of a builder's rows goes through `readRows` or `countRows`, or is made of what `withResolved`
 * gives (`read-groups.ts`).
 *
 * - Lines, roles and rows are read in one snapshot: callers run inside one read transaction.
 * - What the reader may not see is left out here, before anything leaves the thread.
 * - A wrong id and a row that is not seen answer alike.
 */
import { AppError } from '$lib/core/app-error.ts'
import { fromStoredFile, holdsFile } from '$lib/core/capture/attachment.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import { covers } from '$lib/core/access/types.ts'
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { ERROR_NAMES, type Expr } from '$lib/core/model/formula.ts'
import { labelIs, labelStarts } from '$lib/core/query/by-label.ts'
import { atMost, planAnchors, planCount, planPage, type AnchorPlan, type PagePlan } from '$lib/core/query/plan.ts'
import type { Cursor, PageRequest, Plans } from '$lib/core/query/request.ts'
import type { CellPlace, OfferPlaces } from '$lib/core/query/select-list.ts'
import { countsAnew } from '$lib/core/query/sorted-value.ts'
import { toCondition, type Filter } from '$lib/core/query/filter.ts'
import { cellKey, type WireCell, type WirePage, type WireRow } from '$lib/core/query/wire.ts'
import { param, sql, type Sql, type SqlValue } from '$lib/core/sql/sql.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import { standingOf, type Actor, type Standing } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { noteOrder } from '../derived/order-index.ts'
import { toValue } from '../store/stored-row.ts'
import { fewCandidates } from './text-candidates.ts'

export interface RowsRequest {
	readonly table: number
	/** All that are seen, if left out. */
	readonly columns?: readonly number[] | undefined
	/** Conditions as text, judged as the reader sees the data. They come from documents, never from a client. */
	readonly where?: readonly string[] | undefined
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
	/** Only rows whose label starts so: for choosing a row to refer to. */
	readonly labelStarts?: string | undefined
	/** Only rows whose label is this text. */
	readonly labelIs?: string | undefined
}

export interface SortBy {
	readonly column: number
	readonly descending: boolean
}

const PAGE = 50
/** Pages of a long list may start at every thousandth row. */
export const ANCHOR_EVERY = 1_000
const MOST = 1_000

/** A page of rows, as much of them as this person may see. */
export function readRows(store: Store, actor: Actor, request: RowsRequest, now: number): WirePage {
	const standing = standingOf(store, actor, now)
	const asked = resolve(store, standing, request)
	if (!asked) return { rows: [], next: null, columns: [] }
	const { catalogue } = store.workspace()
	const plan = planPage(asked, { catalogue, rights: standing.rights })
	const found = readBranches(store, plan, { ...asked, skip: Math.min(request.skip ?? 0, ANCHOR_EVERY) })
	const rows = found.rows.map((row) => toWire(row, plan, { store, table: asked.table }))
	return {
		rows,
		next: found.cursor ? sealCursor(store, asked.table, found.cursor) : null,
		columns: visibleColumns(asked, standing),
		...(asked.unsorted === undefined ? {} : { unsorted: asked.unsorted })
	}
}

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

/** More rows than this are not ordered by a total that has to be counted anew for each of them. */
const MOST_COUNTED_ANEW = 10_000

/** How many rows this person may see, counted up to `limit`. */
export function countRows(store: Store, actor: Actor, request: RowsRequest & { limit: number }, now: number): number {
	const standing = standingOf(store, actor, now)
	const asked = resolve(store, standing, request)
	if (!asked) return 0
	return countUnder(store, standing.rights, { ...asked, limit: request.limit })
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

/** Checks a request against what this person can know of; undefined where the answer is "nothing" whatever the rows. */
function resolve(store: Store, standing: Standing, request: RowsRequest): Resolved | undefined {
	const { catalogue } = store.workspace()
	const table = catalogue.tables.get(request.table)
	if (!table || isNever(standing.rights.rows(table))) return undefined
	const columns = request.columns
		? request.columns.map((id) => findColumn(table, id)).filter((column) => column !== undefined)
		: table.columns
	// An id that is none is asked for like one whose row is not seen, so that nobody learns which of them it was.
	const row = request.row === undefined ? undefined : (store.ids.fromId(table.id, request.row) ?? NO_ROW)
	const pointing = request.pointing && resolvePointing(store, table, request.pointing)
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
		offers: request.offers ?? false
	}
}

/** The number of no row. */
const NO_ROW = -1

interface Resolved extends PageRequest {
	/** A column by which the rows are not ordered, though it was asked. */
	readonly unsorted?: number
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

function resolvePointing(
	store: Store,
	table: Table,
	pointing: { column: number; to: string }
): PageRequest['pointing'] {
	const column = findColumn(table, pointing.column)
	return column?.to === undefined ? undefined : { column, to: store.ids.fromId(column.to, pointing.to) ?? NO_ROW }
}

function conditionsOf(store: Store, table: Table, request: RowsRequest, standing: Standing): Expr[] {
	const { catalogue } = store.workspace()
	const conditions = (request.where ?? [])
		.filter((text) => text.trim() !== '')
		.map((text) => {
			const { expr, issues } = checkCondition(text, { catalogue, rows: [table], me: true })
			if (!expr) throw new AppError('invalid', issues[0]?.message ?? 'This condition cannot be read.', { issues })
			return fold(expr, standing.moment)
		})
	for (const filter of request.filters ?? []) {
		const condition = toCondition(filter, table, catalogue)
		if (condition) conditions.push(fold(condition, standing.moment))
	}
	if (request.labelIs !== undefined) conditions.push(labelIs(request.labelIs, table, catalogue))
	if (request.labelStarts) conditions.push(...labelStarts(request.labelStarts, table, catalogue))
	return conditions
}

function visibleColumns(request: PageRequest, { rights }: Standing): number[] {
	return request.columns.filter((column) => !isNever(rights.cell(request.table, column))).map((column) => column.id)
}

/** Reads branch after branch until the page is full. One row more than asked for tells whether there is a next page. */
function readBranches(
	store: Store,
	plan: PagePlan,
	request: PageRequest & { readonly skip: number }
): { rows: unknown[][]; cursor: Cursor | undefined } {
	const rows: unknown[][] = []
	let skip = request.skip
	let branch = request.after?.branch ?? 0
	let last = branch
	for (; branch < plan.branches.length; branch++) {
		const query = plan.branches[branch]
		if (!query) break
		const found = readFrom(store, query, { skip, wanted: request.limit + 1 })
		for (const row of found.rows) {
			if (rows.length === request.limit) {
				const end = rows[rows.length - 1]
				return { rows, cursor: end && cursorAt(end, last, plan) }
			}
			rows.push(row)
			last = branch
		}
		skip = found.left
	}
	return { rows, cursor: undefined }
}

/** Rows of one branch after some that are passed over, and how many of these are left to be passed over in the next. */
function readFrom(
	store: Store,
	query: Sql,
	{ skip, wanted }: { skip: number; wanted: number }
): { rows: unknown[][]; left: number } {
	const limited = atMost(query, wanted)
	if (skip === 0) return { rows: store.select(limited), left: 0 }
	const rows = store.select(sql`${limited} OFFSET ${param(skip)}`)
	if (rows.length > 0) return { rows, left: 0 }
	const [passed] = store.select(sql`SELECT count(*) FROM (${query} LIMIT ${param(skip)})`)
	return { rows, left: skip - Number(passed?.[0] ?? 0) }
}

function cursorAt(row: unknown[], branch: number, plan: PagePlan): Cursor {
	// Rows without a first value, or whose first value is not seen, are not ordered by it: it must not leak in a cursor.
	const values = plan.sortAt.map((at, i) => (i === 0 && branch > 0 ? null : (row[at] as SqlValue)))
	return { branch, values, n: Number(row[0]) }
}

/** How many rows a request finds in all, and where every thousandth of them stands. */
export function readAnchors(
	store: Store,
	actor: Actor,
	request: RowsRequest,
	now: number
): { count: number; anchors: string[] } {
	const standing = standingOf(store, actor, now)
	const asked = resolve(store, standing, request)
	if (!asked) return { count: 0, anchors: [] }
	let count = 0
	const anchors: Cursor[] = []
	const plans = planAnchors(asked, { catalogue: store.workspace().catalogue, rights: standing.rights })
	plans.forEach((plan, branch) => {
		const own = Number(store.select(plan.count)[0]?.[0] ?? 0)
		if (own > 0) anchors.push(...anchorsOf(store, plan, { branch, skip: count, rows: own }))
		count += own
	})
	return { count, anchors: anchors.map((anchor) => sealCursor(store, asked.table, anchor)) }
}

interface AnchoredBranch {
	readonly branch: number
	/** How many rows come before the branch, and how many it has. */
	readonly skip: number
	readonly rows: number
}

/** By jumps where an index gives the order (0.1 s for a million rows), else by numbering the rows once (1.4 to 2.8 s). */
function anchorsOf(store: Store, plan: AnchorPlan, { branch, skip, rows }: AnchoredBranch): Cursor[] {
	const firstAt = ANCHOR_EVERY - (skip % ANCHOR_EVERY)
	if (rows < firstAt) return []
	const toCursor = (row: unknown[]): Cursor => ({
		branch,
		// Rows without a first value, or whose first value is not seen, are not ordered by it.
		values: row.slice(0, -1).map((value, i) => (i === 0 && branch > 0 ? null : (value as SqlValue))),
		n: Number(row.at(-1))
	})
	if (!isInOrder(store, plan)) return store.select(plan.anchors(skip, ANCHOR_EVERY)).map(toCursor)
	const anchors: Cursor[] = []
	for (let at = firstAt; at <= rows; at += ANCHOR_EVERY) {
		const [row] = store.select(plan.jump(anchors.at(-1), at === firstAt ? firstAt : ANCHOR_EVERY))
		if (!row) break
		anchors.push(toCursor(row))
	}
	return anchors
}

function isInOrder(store: Store, plan: AnchorPlan): boolean {
	const steps = store.select(sql`EXPLAIN QUERY PLAN ${plan.jump(undefined, 1)}`)
	return !steps.some((step) => String(step[3]).includes('TEMP B-TREE'))
}

function sealCursor(store: Store, table: Table, cursor: Cursor): string {
	const parts = [cursor.branch, cursor.values, store.ids.toId(table.id, cursor.n)]
	return Buffer.from(JSON.stringify(parts)).toString('base64url')
}

/** A cursor is only a place to go on from: whatever a client makes of it, rows pass the same conditions. */
function openCursor(store: Store, table: Table, text: string | undefined): Cursor | undefined {
	if (!text) return undefined
	try {
		const [branch, values, id] = JSON.parse(Buffer.from(text, 'base64url').toString()) as unknown[]
		const n = typeof id === 'string' ? store.ids.fromId(table.id, id) : undefined
		if (n !== undefined && Number.isInteger(branch) && Array.isArray(values) && values.every(isSqlValue))
			return { branch: Number(branch), values, n }
	} catch {
		// Falls through: a damaged cursor is answered like any other that leads nowhere.
	}
	throw new AppError('invalid', 'This place in the list is no longer known. Load the list again.')
}

function isSqlValue(value: unknown): value is SqlValue {
	return value === null || typeof value === 'string' || typeof value === 'number'
}

interface WirePlace {
	readonly store: Store
	readonly table: Table
}

function toWire(row: unknown[], plan: PagePlan, place: WirePlace): WireRow {
	const cells: Record<string, WireCell> = {}
	for (const cell of plan.cells) {
		if (cell.seenAt !== undefined && row[cell.seenAt] !== 1) continue
		cells[cellKey(cell.column.id)] = toCell(row, cell, place.store)
	}
	const wire = { id: place.store.ids.toId(place.table.id, Number(row[0])), rev: Number(row[1]), cells }
	return plan.offers ? { ...wire, may: toOffers(row, plan.offers, place.table) } : wire
}

function toCell(row: unknown[], cell: CellPlace, store: Store): WireCell {
	const { column } = cell
	const error = cell.errorAt === undefined ? null : row[cell.errorAt]
	if (typeof error === 'number') return { error: ERROR_NAMES[error] ?? '#VALUE!' }
	const stored = row[cell.at] as StoredValue
	if (stored === null) return null
	if (cell.label) return toReference(row, cell.label, Number(stored), { store, to: column.to ?? 0 })
	if (holdsFile(column)) return { file: fromStoredFile(String(stored)) }
	const value = toValue(column, stored)
	return typeof value === 'object' ? null : value
}

function toReference(
	row: unknown[],
	label: NonNullable<CellPlace['label']>,
	n: number,
	{ store, to }: { store: Store; to: number }
): WireCell {
	if (label.seenAt !== undefined && row[label.seenAt] !== 1) return { hidden: true }
	return { id: store.ids.toId(to, n), label: labelText(label.column, row[label.at] as StoredValue) }
}

export function labelText(column: Column, stored: StoredValue): string {
	if (stored === null) return ''
	const value = toValue(column, stored)
	if (value === null || typeof value === 'object') return ''
	// What rows are known by is a name, though it be a number: its digits stand together.
	if (column.type === 'whole number') return String(value)
	return findKind(column.type)?.show(value, column) ?? String(value)
}

function toOffers(row: unknown[], offers: OfferPlaces, table: Table): NonNullable<WireRow['may']> {
	const held = offers.change.filter(({ at }) => row[at] === 1).map(({ right }) => right.columns)
	const change = table.columns.filter((column) => !column.computed && held.some((scope) => covers(scope, column.id)))
	const remove = offers.removeAt !== undefined && row[offers.removeAt] === 1
	return { change: change.map((column) => column.id), remove }
}
