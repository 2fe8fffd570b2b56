/** Rows and words for somebody, with their sight of this moment, through the door as any page of theirs. */
import { cellKey, type WirePage } from '$lib/core/query/wire.ts'
import type { ReportTable } from '$lib/core/requests/report.ts'
import { showCell } from '$lib/core/requests/show-cell.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { NUMBERS } from '$lib/core/sentence/slots/measure.ts'
import type { Payload } from '../queue/queue.ts'
import { standingOf } from '../rights/rights-of-actor.ts'
import { describeColumns } from '../rows/describe-columns.ts'
import { countRows, readRows } from '../rows/read.ts'
import type { RowsRequest, SortBy } from '../rows/resolve.ts'
import type { Store } from '../store/store.ts'
import { givenOf, type RowAt } from './work-out.ts'

/** What is to be written, and when. */
export interface Writing {
	readonly report: Payload<'report'>
	/** Epoch ms. */
	readonly now: number
}

export interface RowsWanted {
	readonly table: number
	readonly where: string
	readonly sort: readonly SortBy[]
	readonly columns: readonly number[]
}

/** The rows at hand and around it; undefined where there are none, or their tables are gone. */
export function rowsAround(
	store: Store,
	{ at, outer }: Pick<Payload<'report'>, 'at' | 'outer'>
): { readonly at: RowAt | undefined; readonly outer: RowAt | undefined } {
	const of = (row: { table: number; n: number } | null): RowAt | undefined => {
		const table = row ? store.workspace().catalogue.tables.get(row.table) : undefined
		return row && table ? { table, n: row.n } : undefined
	}
	return { at: of(at), outer: of(outer) }
}

/** `this` in its condition is the row at hand, `me` whoever it is for. */
export function requestFor(
	store: Store,
	{ report, now }: Writing,
	{ table, where, sort, columns }: RowsWanted
): RowsRequest {
	const { at } = rowsAround(store, report)
	const [first, ...then] = sort
	return {
		...{ table, columns, where: [where], sort: first, then },
		...(at ? { given: givenOf(store, at, standingOf(store, { person: report.person }, now)) } : {})
	}
}

export interface RowsFor {
	readonly columns: readonly ShownColumn[]
	readonly shown: ReportTable
	/** How many there are, counted up to one more than `count`. */
	readonly rows: number
}

/** Undefined where they see nothing of the table. */
export function rowsFor(
	store: Store,
	{ report: { person }, now }: Writing,
	{ request, show, count }: { request: RowsRequest; show: number; count: number }
): RowsFor | undefined {
	const table = store.workspace().catalogue.tables.get(request.table)
	const pages = readUpTo(store, { person, now, request }, show)
	const seen = pages[0]?.columns ?? []
	if (!table || seen.length === 0) return undefined
	const columns = describeColumns(table, seen)
	const all = pages.flatMap(({ rows }) => rows).slice(0, show)
	const rows = countRows(store, { person }, { ...request, limit: count + 1 }, now)
	return {
		columns,
		rows,
		shown: {
			title: table.name,
			heads: columns.map(({ name, type, shows }) => ({ name, isNumber: NUMBERS.has(shows ?? type) })),
			rows: all.map((row) => columns.map((column) => showCell(column, row.cells[cellKey(column.id)]))),
			...{ foot: [], more: rows - all.length, note: '' }
		}
	}
}

const PAGE = 1_000

function readUpTo(
	store: Store,
	{ person, now, request }: { person: number; now: number; request: RowsRequest },
	most: number
): WirePage[] {
	const pages: WirePage[] = []
	let after: string | undefined
	for (let left = most; left > 0; left -= PAGE) {
		const page = readRows(store, { person }, { ...request, limit: Math.min(PAGE, left), after }, now)
		pages.push(page)
		if (page.next === null) break
		after = page.next
	}
	return pages
}
