/**
 * Rows as they were at the end of a past day, of the sealed history: each as it was before the first change after that day. A
 * row is shown to who sees it now, as `readRows` tells, and saw it, by the same lines, as it was then; a cell likewise. Rows that
 * were removed since are seen by nobody now, and so are not shown.
 *
 * Of computed columns those are kept that are made of their own row alone: what they said is worked out from what stood there, and
 * TODAY() is that day, in conditions too. Totals over other rows and files are left out; what a condition reads of other tables is
 * as it is now.
 */
import { isErrorValue, ERROR_NAMES, type Expr, type Plain, type Value } from '$lib/core/model/formula.ts'
import { compareValues, evaluate, isTrue } from '$lib/core/formula/evaluate/evaluate.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import { getColumn, getTable, type Column, type Table } from '$lib/core/model/table.ts'
import { isKept } from '$lib/core/query/kept.ts'
import { cellKey, type WireCell } from '$lib/core/query/wire.ts'
import type { PastPage, PastRow } from '$lib/core/requests/rows.ts'
import { addDays } from '$lib/core/schedule/calendar.ts'
import { instantAt } from '$lib/core/schedule/zone.ts'
import { param, sql } from '$lib/core/sql/sql.ts'
import { isStored, storageClass, type StoredValue } from '$lib/core/table/storage.ts'
import { standingOf, type Actor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { readStoredRow, rowFromStored, type StoredRow } from '../store/stored-row.ts'
import { asSeenBy, type AsSeen, type SeenRow } from './as-seen.ts'
import { readRows } from './read.ts'
import { readBody, type Snapshot } from './read-history.ts'
import { resolve, type Resolved, type RowsRequest } from './resolve.ts'
import { labelText } from './to-wire.ts'

export interface PastRequest extends Omit<RowsRequest, 'after' | 'offers' | 'given' | 'row'> {
	/** As an ISO date, in the workspace's zone: the rows as they were when it ended. */
	readonly day: string
}

export interface PastValues {
	/** Of each row that fits the value of the column; blank where it is not seen. */
	readonly values: readonly Plain[]
	/** Of how many rows the cell is kept back. */
	readonly kept: number
	readonly isCut: boolean
}

/** Each is looked at by itself, so not without end. */
const MOST_ROWS = 20_000

const FIRST_AFTER = `
	SELECT body FROM history
	WHERE table_id = ? AND row_n = ? AND at >= ? AND kind IN ('add', 'change', 'remove', 'restore')
	ORDER BY seq LIMIT 1`

/** A page of them; from the start again on where `skip` says. */
export function readPast(store: Store, actor: Actor, request: PastRequest, now: number): PastPage {
	const looked = lookThrough(store, actor, request, now)
	if (!looked) return { rows: [], count: 0, columns: [], isCut: false }
	const { asked, seen, fitting, isCut } = looked
	const { skip = 0 } = request
	const columns = asked.columns.filter((column) => isKept(column) && !isNever(seen.rights.cell(asked.table, column)))
	const ordered = inOrder(fitting, asked, seen)
	return {
		rows: ordered.slice(skip, skip + asked.limit).map((row) => toWire(store, row, { columns, asked, seen })),
		count: fitting.length,
		columns: columns.map(({ id }) => id),
		isCut
	}
}

/** What a column held on them; null where its reader sees nothing of it, or where it is not kept. */
export function readPastValues(
	store: Store,
	actor: Actor,
	{ column: id, ...request }: PastRequest & { readonly column: number | null },
	now: number
): PastValues | null {
	const looked = lookThrough(store, actor, request, now)
	if (!looked) return null
	const { fitting, isCut, asked, seen } = looked
	if (id === null) return { values: fitting.map(() => 1), kept: 0, isCut }
	const column = asked.table.columns.find((each) => each.id === id)
	if (!column || !isKept(column) || isNever(seen.rights.cell(asked.table, column))) return null
	const values = fitting.filter((row) => row.isSeen(column)).map((row) => plain(valueOf(row, column)))
	return { values, kept: fitting.length - values.length, isCut }
}

/** As pages judge it: an error in one part of an `or` takes nothing from the others. */
function fitsCondition(condition: Expr, row: SeenRow, seen: AsSeen): boolean {
	if (condition.kind === 'or') return condition.args.some((each) => fitsCondition(each, row, seen))
	if (condition.kind === 'and') return condition.args.every((each) => fitsCondition(each, row, seen))
	return isTrue(evaluate(condition, { ...seen.env, rows: [row] }))
}

interface RowThen extends SeenRow {
	/** Whether something else stands there today. */
	readonly isOther: (column: Column) => boolean
}

interface Then {
	readonly table: Table
	/** When the day was over, in epoch ms. */
	readonly ended: number
	readonly seen: AsSeen
}

interface Looked {
	readonly asked: Resolved
	readonly seen: AsSeen
	readonly fitting: readonly RowThen[]
	readonly isCut: boolean
}

function lookThrough(store: Store, actor: Actor, request: PastRequest, now: number): Looked | undefined {
	const standing = standingOf(store, actor, now)
	const next = addDays(request.day, 1)
	if (next === undefined) return undefined
	const ended = Date.parse(instantAt(`${next}T00:00:00.000`, store.workspace().timeZone))
	const moment = { ...standing.moment, today: request.day, now: new Date(Math.min(ended - 1, now)).toISOString() }
	const asked = resolve(store, { ...standing, moment }, request)
	if (!asked) return undefined
	const seen = asSeenBy(store, standing, moment)
	const { table } = asked
	const current = [...seenNow(store, actor, asked, now)]
	const later = madeSince(store, table, ended)
	const rows = current
		.slice(0, MOST_ROWS)
		.flatMap(([n, cells]) => (later.has(n) ? [] : (rowThen(store, { n, cells }, { table, ended, seen }) ?? [])))
	const fits = (row: RowThen) =>
		asked.where.every((condition) => fitsCondition(condition, row, seen)) &&
		(!asked.pointing || row.value(asked.pointing.column) === asked.pointing.to)
	return { asked, seen, fitting: rows.filter(fits), isCut: current.length > MOST_ROWS }
}

/** Of the rows that are seen now, by their numbers, the cells that are: as the one door tells. */
function seenNow(store: Store, actor: Actor, { table }: Resolved, now: number): Map<number, ReadonlySet<string>> {
	const seen = new Map<number, ReadonlySet<string>>()
	const columns = table.columns.filter(isKept).map(({ id }) => id)
	let after: string | undefined
	do {
		const page = readRows(store, actor, { table: table.id, columns, limit: 1_000, after }, now)
		for (const { id, cells } of page.rows) seen.set(store.ids.fromId(table.id, id) ?? 0, new Set(Object.keys(cells)))
		after = page.next ?? undefined
	} while (after !== undefined && seen.size <= MOST_ROWS)
	return seen
}

/** The numbers of rows that came in after that day: those that a file brought have no entry of their own. */
function madeSince(store: Store, table: Table, ended: number): ReadonlySet<number> {
	const found = store.select(sql`SELECT n FROM t${table.id} WHERE made_at >= ${param(ended)}`)
	return new Set(found.map(([n]) => Number(n)))
}

interface SeenNow {
	readonly n: number
	/** The keys of the cells that are seen now. */
	readonly cells: ReadonlySet<string>
}

/** A row as it was, with what its reader sees now and saw then; undefined where it was not there, or not theirs to see. */
function rowThen(store: Store, { n, cells }: SeenNow, { table, ended, seen }: Then): RowThen | undefined {
	const today = readStoredRow(store, table, n)
	const then = today && stateThen(store, table, today, ended)
	if (!then || !seen.holds(seen.rights.rows(table), then)) return undefined
	const known = new Map<number, boolean>()
	const isSeen = (column: Column) => {
		const found =
			known.get(column.id) ?? (cells.has(cellKey(column.id)) && seen.holds(seen.rights.cell(table, column), then))
		known.set(column.id, found)
		return found
	}
	return {
		...{ n, stored: then.stored, isSeen },
		isOther: (column) => isSeen(column) && today.stored.get(column.id) !== then.stored.get(column.id),
		value: (column) => (isSeen(column) ? then.value(column) : null),
		worked: (column) =>
			column.computed && isKept(column) && isSeen(column)
				? evaluate(column.computed.expr, { ...seen.whole, ...seen.moment, rows: [then] })
				: null
	}
}

function stateThen(store: Store, table: Table, today: StoredRow, ended: number): StoredRow | undefined {
	const first = store.prepare<{ body: string }>(FIRST_AFTER).get(table.id, today.n, ended)
	if (!first) return today
	// What was added, or put back, after that day was not there on it.
	const { before } = readBody(first.body)
	return before && rowFromStored(today.n, today.rev, cellsOf(table, before))
}

/** A column that has become of another type since holds nothing that could still be read. */
function cellsOf(table: Table, before: Snapshot): ReadonlyMap<number, StoredValue> {
	return new Map(
		table.columns.filter(isStored).map((column) => {
			const value = before[cellKey(column.id)] ?? null
			const isText = storageClass(column) === 'TEXT'
			return [column.id, value !== null && (typeof value === 'string') === isText ? value : null]
		})
	)
}

function valueOf(row: SeenRow, column: Column): Value {
	return column.computed ? (row.worked?.(column) ?? null) : row.value(column)
}

function plain(value: Value): Plain {
	return isErrorValue(value) ? null : value
}

/** As pages are: blanks and what is not seen last, rows of one key in the order in which they came. */
function inOrder(rows: readonly RowThen[], { sort, then = [] }: Resolved, seen: AsSeen): readonly RowThen[] {
	const keys = [...(sort ? [sort] : []), ...then]
	const sorted = rows.map((row) => ({ row, keys: keys.map(({ column }) => sortKey(row, column, seen)) }))
	return sorted
		.toSorted((a, b) => {
			for (const [i, { descending }] of keys.entries()) {
				const [one, other] = [a.keys[i] ?? null, b.keys[i] ?? null]
				if (one === null || other === null) {
					if (one !== other) return one === null ? 1 : -1
				} else {
					const order = compareValues(one, other)
					if (order !== 0) return descending ? -order : order
				}
			}
			return a.row.n - b.row.n
		})
		.map(({ row }) => row)
}

/** A reference stands by the label of its row. */
function sortKey(row: SeenRow, column: Column, seen: AsSeen): Plain {
	const value = plain(valueOf(row, column))
	if (column.type !== 'reference' || typeof value !== 'number') return value
	return labelOf(value, column, seen) ?? null
}

/** Undefined where the row that is pointed to, or what it is known by, is not seen now. */
function labelOf(n: number, { to }: Column, { find, catalogue }: AsSeen): string | undefined {
	const table = getTable(catalogue, to ?? 0)
	const label = getColumn(table, table.label)
	const row = find(table, n)
	return row?.isSeen(label) ? labelText(label, row.stored.get(label.id) ?? null) : undefined
}

interface Wiring {
	readonly columns: readonly Column[]
	readonly asked: Resolved
	readonly seen: AsSeen
}

function toWire(store: Store, row: RowThen, { columns, asked, seen }: Wiring): PastRow {
	const cells = columns.flatMap((column) =>
		row.isSeen(column) ? [[cellKey(column.id), toCell(store, row, column, seen)] as const] : []
	)
	const flags = (asked.flags ?? []).flatMap((flag, i) => (fitsCondition(flag, row, seen) ? [i] : []))
	return {
		id: store.ids.toId(asked.table.id, row.n),
		rev: 0,
		cells: Object.fromEntries(cells),
		flags,
		since: columns.filter(row.isOther).map(({ id }) => id)
	}
}

function toCell(store: Store, row: SeenRow, column: Column, seen: AsSeen): WireCell {
	const value = valueOf(row, column)
	if (isErrorValue(value)) return { error: ERROR_NAMES[value.errorCode] ?? '#VALUE!' }
	if (column.type !== 'reference' || typeof value !== 'number') return value
	const label = labelOf(value, column, seen)
	return label === undefined ? { hidden: true } : { id: store.ids.toId(column.to ?? 0, value), label }
}
