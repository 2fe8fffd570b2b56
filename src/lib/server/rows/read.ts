/**
 * The one door out: every read of a builder's rows goes through `readRows` or `countRows`, or is made of what
 * `withResolved` gives (`read-groups.ts`, `read-sums.ts`, `read-measures.ts`) or `readAnchors` finds. What was (`read-history.ts`,
 * `read-past.ts`) is judged twice by the same rights: on the row as it is and as it was.
 *
 * - Lines, roles and rows are read in one snapshot: callers run inside one read transaction.
 * - What the reader may not see is left out here, before anything leaves the thread.
 * - A wrong id and a row that is not seen answer alike.
 */
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import { atMost, planPage, type PagePlan } from '$lib/core/query/plan.ts'
import type { Cursor, PageRequest } from '$lib/core/query/request.ts'
import type { WirePage } from '$lib/core/query/wire.ts'
import { param, sql, type Sql, type SqlValue } from '$lib/core/sql/sql.ts'
import { standingOf, type Actor, type Standing } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { sealCursor } from './cursor.ts'
import { ANCHOR_EVERY } from './read-anchors.ts'
import { countUnder, resolve, type RowsRequest } from './resolve.ts'
import { toWire } from './to-wire.ts'

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

/** How many rows this person may see, counted up to `limit`. */
export function countRows(store: Store, actor: Actor, request: RowsRequest & { limit: number }, now: number): number {
	const standing = standingOf(store, actor, now)
	const asked = resolve(store, standing, request)
	if (!asked) return 0
	return countUnder(store, standing.rights, { ...asked, limit: request.limit })
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
