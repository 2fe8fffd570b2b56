/**
 * Indexes that long tables get because rows were asked for in an order that none served. A reader notes what it would have
 * liked to have; the writer makes it beside other work, once, and from then on keeps it.
 *
 * Only where values are many: an index of few values is a worse way to rows than none. Columns by which a released list is
 * sorted have theirs from the release on (`apps/index-sorts.ts`).
 */
import { rollupSortPlace } from '$lib/core/formula/sql/rollups.ts'
import { isStored } from '$lib/core/table/storage.ts'
import { findColumn, type Column, type ColumnTypeName, type Table } from '$lib/core/model/table.ts'
import type { Store, WantedOrder } from '../store/store.ts'
import { createIndex } from '../store/schema.ts'

/** Fewer rows are put in order in the time that a page takes anyway. */
export const LARGE = 50_000
/** As many further indexes a table gets: each is written with each row. */
const MOST = 8

const FEW_VALUES: ReadonlySet<ColumnTypeName> = new Set([
	...(['choice', 'several choices', 'yes/no', 'reference'] as const)
])
const HAS = `SELECT 1 FROM sqlite_schema WHERE type = 'index' AND name = ?`
const MADE = `SELECT count(*) FROM meta WHERE key GLOB ?`
const NOTE = `INSERT INTO meta (key, value) VALUES (?, 'yes') ON CONFLICT (key) DO NOTHING`

/** Notes that an index would serve, where there is none: in `store.wanted`, for whoever can have it made. */
export function noteOrder(store: Store, table: Table, column: Column): void {
	if (wants(store, table, column)) store.wanted.set(`${table.id} ${column.id}`, { table: table.id, column: column.id })
}

/** Makes it; false where it is there already, or has no place. It takes half a second for a million rows. */
export function makeOrderIndex(store: Store, { table: id, column: columnId }: WantedOrder): boolean {
	const table = store.workspace().catalogue.tables.get(id)
	const column = table && findColumn(table, columnId)
	if (!column || !wants(store, table, column)) return false
	if (Number(store.pluck(MADE, `order index ${id} *`)) >= MOST) return false
	createIndex(store.db, table, column)
	store.prepare(NOTE).run(`order index ${id} ${columnId}`)
	return true
}

function wants(store: Store, table: Table, column: Column): boolean {
	const kept = rollupSortPlace(column)
	if (!(kept ?? isStored(column)) || FEW_VALUES.has(column.type)) return false
	if (column.computed?.expr.type.kind === 'yesno') return false
	if (store.pluck(HAS, `i${table.id}_${kept ?? column.id}`) !== undefined) return false
	return Number(store.pluck(`SELECT max(n) FROM t${table.id}`) ?? 0) > LARGE
}
