import type { LineOf, ScreenLine } from '$lib/core/app/lines/all.ts'
import type { Here, HeldValue } from '$lib/core/formula/check/check-call.ts'
import { partsOfAnd } from '$lib/core/formula/syntax/parts-of-and.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import type { Filter } from '$lib/core/query/filter.ts'
import { isReferenceCell, type WireCell, type WirePage } from '$lib/core/query/wire.ts'
import type { Groups } from '$lib/core/requests/rows.ts'
import { showDate } from '$lib/core/table/show-times.ts'
import type { ListGroups, ListTotal, Narrowing, RowAction } from '$lib/core/requests/screens.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { countRows, readRows } from '../../rows/read.ts'
import { readPast, type PastRequest } from '../../rows/read-past.ts'
import { readSums } from '../../rows/read-sums.ts'
import { readGroups } from '../../rows/read-groups.ts'
import { readMeasures } from '../../rows/read-measures.ts'
import type { RowsRequest } from '../../rows/resolve.ts'
import type { Actor } from '../../rights/rights-of-actor.ts'
import type { Store } from '../../store/store.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { isFor } from '../for-whom.ts'
import { dayThen } from './as-it-was.ts'
import { actionOnRows } from './button.ts'
import { sayMeasure } from './say-measure.ts'
import { putOnRows } from './put.ts'
import { samplesFor } from './samples.ts'
import { tallyOnRows } from './tally.ts'
import { seesRows } from './record.ts'
import { marksOf, marksShown, opensFor, seenColumns } from './rows-of-line.ts'
import { tableOf, type ShownAs, type View, type ViewRequest } from './view.ts'

type ListLine = LineOf<'list'>

/** Counted no further, since nobody counts on. */
export const COUNT_LIMIT = 1_000

export const list: ShownAs<ListLine> = {
	holdsSomething: seesRows,
	show(line, view) {
		const { store, request } = view
		const table = tableOf(view, line.table)
		if (!table || !seesRows(line, view) || (line.of !== null && request.row === undefined)) return []
		const narrowing = request.narrowed?.[line.id] ?? NOT_NARROWED
		const place = { ...request, here: view.here }
		const limited = request.shown?.[line.id] || undefined
		const day = dayThen(store, line.asOf, place)
		const { page, count } = readWhole(store, line, place, { narrowing, limit: limited, day })
		const { id, limit, empty, finds, holds } = line
		return [
			{
				...{
					id,
					kind: 'list',
					as: line.as,
					asOf: day === undefined ? null : showDate(day, store.workspace().writing),
					isOfRow: line.of !== null,
					table: table.id,
					title: table.name,
					opens: opensFor(line, view),
					limit,
					empty,
					holds,
					waitsFor: waitsFor(line, view)
				},
				columns: describeColumns(
					table,
					page.columns.filter((column) => column !== line.ticks)
				),
				page,
				samples: day === undefined ? samplesFor(table, page, view) : [],
				count,
				groups: groupsOf(line, table, view),
				marks: marksShown(line),
				actions: line.lines.flatMap((each) => actionsOf(each, table, view)),
				ticks: ticksOf(line, table, view),
				totals: totalsOf(line, table, place, view),
				wide: line.wide,
				narrow: line.narrow,
				finds: seenColumns(finds, table, view).length > 0,
				filters: seenColumns(line.filters, table, view),
				narrowing
			}
		]
	}
}

function actionsOf(each: ScreenLine, table: Table, view: View): RowAction[] {
	if (!isFor(each, view.standing)) return []
	if (each.kind === 'button') return actionOnRows(each, table, view)
	if (each.kind === 'put') return putOnRows(each, table, view)
	return each.kind === 'tally' ? tallyOnRows(each, table, view) : []
}

/** The column that a box on each row ticks, for who may change it on some row; whether on this one is asked when it is ticked. */
function ticksOf({ ticks }: ListLine, table: Table, { standing }: View): ShownColumn | null {
	const column = ticks === null ? undefined : findColumn(table, ticks)
	const isOffered = column && standing.rights.mayPossibly('change', table, column)
	return isOffered ? (describeColumns(table, [column.id])[0] ?? null) : null
}

function totalsOf(line: ListLine, table: Table, { row, here }: RowsAround, { store, request }: View): ListTotal[] {
	if (line.totals.length === 0) return []
	const { actor, now, narrowed } = request
	const asked = unordered(line, narrowed?.[line.id] ?? NOT_NARROWED, { row, here })
	return readSums(store, { actor, request: asked, columns: line.totals, now }).flatMap(({ column: id, ...of }) =>
		describeColumns(table, [id]).map((column) => ({ column, ...of }))
	)
}

/** A condition that reads what the screen holds holds for nothing before that is chosen. */
function waitsFor({ where }: ListLine, { here }: View): string {
	const [name, held] = heldReadBy(where, here).find(([, each]) => each?.value === null) ?? []
	return held?.type.kind === 'row' ? held.type.table.name : (name ?? '')
}

/** What a condition reads of the screen, by name. */
function heldReadBy(condition: string, here: Here): [string, HeldValue | undefined][] {
	return [...condition.matchAll(/\bhere\.([\p{L}\p{N}_]+)/giu)].map(([, name = '']) => [name, here.get(nameKey(name))])
}

/** What must hold of the rows of a line: of a condition on what is chosen, each part counts once all that it reads is. */
export function conditionsOf({ where, once }: Pick<ListLine, 'where' | 'once'>, here: Here): string[] {
	const isOn = (part: string) => heldReadBy(part, here).every(([, held]) => (held?.value ?? null) !== null)
	return [where, ...(once.trim() === '' ? [] : partsOfAnd(once).filter(isOn))]
}

const NOT_NARROWED: Narrowing = { find: '', filters: [] }

/** What a list stands beside: the row of its screen, and those that are chosen on it. */
interface RowsAround {
	readonly row?: string | undefined
	readonly here: Here
}

/** Who reads a list, and beside what. */
type ListPlace = Pick<ViewRequest, 'actor' | 'now'> & RowsAround

/** A page of a list; `narrowing`: what its reader looks for, within what the list lets them. */
export function readListPage(
	store: Store,
	line: ListLine,
	place: ListPlace,
	{ narrowing, after, limit }: { narrowing: Narrowing; after?: string | undefined; limit?: number | undefined }
): WirePage {
	const { actor, now } = place
	const asked = { ...rowsAsked(line, narrowing, place), limit: mostOf(line, limit) }
	const day = dayThen(store, line.asOf, place)
	const page =
		day === undefined
			? readRows(store, actor, { ...asked, after }, now)
			: pageThen(store, actor, { ...asked, day, skip: Number(after ?? 0) || 0 }, now)
	return line.limit === null ? page : { ...page, next: null }
}

function mostOf(line: ListLine, limit: number | undefined): number | undefined {
	return line.limit === null ? limit : Math.min(limit ?? line.limit, line.limit)
}

interface Whole {
	readonly narrowing: Narrowing
	readonly limit: number | undefined
	readonly day: string | undefined
}

/** Its first page, and how many rows it has, counted up to `COUNT_LIMIT`; of a past day both are found in one look. */
function readWhole(
	store: Store,
	line: ListLine,
	place: ListPlace,
	{ narrowing, limit, day }: Whole
): { page: WirePage; count: number } {
	if (day === undefined)
		return {
			page: readListPage(store, line, place, { narrowing, limit }),
			count: countList(store, line, place, narrowing)
		}
	const asked = { ...rowsAsked(line, narrowing, place), limit: mostOf(line, limit), day, skip: 0 }
	const { count, ...page } = pageThen(store, place.actor, asked, place.now)
	return {
		page: line.limit === null ? page : { ...page, next: null },
		count: Math.min(count, line.limit ?? COUNT_LIMIT, COUNT_LIMIT)
	}
}

/** The cursor of such a page is how many rows lie before it: what was changes no more. */
function pageThen(
	store: Store,
	actor: Actor,
	request: PastRequest & { skip: number },
	now: number
): WirePage & { readonly count: number } {
	const { rows, count, columns } = readPast(store, actor, request, now)
	const read = request.skip + rows.length
	return { rows, columns, count, next: read < count && rows.length > 0 ? String(read) : null }
}

/** What stands in a column that a list can be narrowed down by; null for any other. */
export function readListValues(
	store: Store,
	line: ListLine,
	{ actor, now, row, here }: ListPlace,
	{ narrowing, column }: { narrowing: Narrowing; column: number }
): Groups | null {
	if (!line.filters.includes(column)) return null
	return readGroups(store, { actor, request: unordered(line, narrowing, { row, here }), column, now })
}

function unordered(line: ListLine, narrowing: Narrowing, around: RowsAround): RowsRequest {
	const { sort: _sort, then: _then, flags: _flags, ...asked } = rowsAsked(line, narrowing, around)
	return asked
}

function countList(store: Store, line: ListLine, { actor, now, row, here }: ListPlace, narrowing: Narrowing): number {
	const limit = Math.min(line.limit ?? COUNT_LIMIT, COUNT_LIMIT)
	return countRows(store, actor, { ...unordered(line, narrowing, { row, here }), limit }, now)
}

function rowsAsked(line: ListLine, { find, filters, sort: own }: Narrowing, { row, here }: RowsAround): RowsRequest {
	const group = line.group === null ? [] : [{ column: line.group, descending: false }]
	// Whoever reads a table may order it by what it shows.
	const chosen = own && line.columns.includes(own.column) ? [own] : []
	const keys = [...group, ...chosen, ...line.sort]
	const [sort, ...then] = keys.filter(({ column }, i) => keys.findIndex((key) => key.column === column) === i)
	const columns = [...new Set([...line.columns, line.group, line.ticks])].filter((column) => column !== null)
	const found = find.trim() === '' || line.finds.length === 0 ? {} : { find: { text: find, columns: line.finds } }
	const isAsked = ({ column }: Filter) => line.filters.includes(column)
	return {
		...{ table: line.table, columns, where: conditionsOf(line, here), filters: filters.filter(isAsked), ...found },
		...(sort ? { sort, then } : {}),
		...(line.of === null ? {} : { pointing: { column: line.of, to: row ?? '' } }),
		flags: marksOf(line).map(({ where }) => where),
		here
	}
}

/** How many rows there are of each value that the list is grouped by, and what it adds up of them, as its reader sees them. */
function groupsOf(line: ListLine, table: Table, view: View): ListGroups | null {
	const { store, request, here } = view
	const { group } = line
	if (group === null) return null
	const { actor, now, narrowed, row } = request
	const asked = unordered(line, narrowed?.[line.id] ?? NOT_NARROWED, { row, here })
	const found = readGroups(store, { actor, request: asked, column: group, now })
	const [column] = found ? describeColumns(table, [group]) : []
	if (!found || !column) return null
	const sums = sumsOfGroups(line, table, { asked, group, view })
	const counts = found.by === 'value' ? found.groups : []
	return {
		column,
		counts: counts.map((each) => ({ ...each, sums: sums(keyOfGroup(each.value)) })),
		blank: found.blank,
		blankSums: sums(null)
	}
}

/** What the list adds up at its foot, group by group. */
function sumsOfGroups(
	{ totals }: ListLine,
	table: Table,
	{ asked, group, view }: { asked: RowsRequest; group: number; view: View }
): (key: string | null) => string[] {
	const { actor, now } = view.request
	const read = totals.flatMap((column) => {
		const measure = { of: 'sum' as const, column }
		const by = [{ column: group, step: null }]
		const found = readMeasures(view.store, { actor, now, measure, by, request: asked })
		const name = findColumn(table, column)?.name ?? ''
		return found ? [{ name, say: sayMeasure({ measure }, table, view), groups: found.groups }] : []
	})
	return (key) =>
		read.flatMap(({ name, say, groups }) => {
			const { value = null, rows = 0, kept = 0 } = groups.find(({ keys }) => keys[0] === key) ?? {}
			// Where all of it is kept back nothing comes to nought.
			if (value === null || kept === rows) return []
			return [`${name} ${say(value)}${kept > 0 ? ` (${kept} kept back)` : ''}`]
		})
}

/** As measures know it. */
function keyOfGroup(value: WireCell): string | null {
	if (isReferenceCell(value)) return value.id
	if (typeof value === 'boolean') return value ? 'yes' : 'no'
	return value === null || typeof value === 'object' ? null : String(value)
}
