/**
 * Writes a report for whoever gets it: its words, its rows and its counts are read with their sight of this moment, through the
 * door as any page of theirs. What its builder may see is neither asked nor told.
 */
import { sayLeftOut } from '$lib/core/chart/left-out.ts'
import { stepWidth } from '$lib/core/query/bands.ts'
import { cellKey, type WirePage } from '$lib/core/query/wire.ts'
import type { ReportTable } from '$lib/core/requests/report.ts'
import { showCell } from '$lib/core/requests/show-cell.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import type { ReportStep } from '$lib/core/routine/report-step.ts'
import { isBands, NUMBERS, type Grouping } from '$lib/core/sentence/slots/measure.ts'
import { countOf } from '$lib/core/text/count.ts'
import type { Payload } from '../queue/queue.ts'
import { standingOf } from '../rights/rights-of-actor.ts'
import { describeColumns } from '../rows/describe-columns.ts'
import { groupsAlong, type ToldBy } from '../rows/groups-along.ts'
import { countRows, readRows } from '../rows/read.ts'
import { readMeasures, readSpread, type Measures } from '../rows/read-measures.ts'
import type { RowsRequest } from '../rows/resolve.ts'
import { sayNumber } from '../rows/say-number.ts'
import type { Store } from '../store/store.ts'
import { composeFor } from './compose.ts'
import { givenOf, type RowAt } from './work-out.ts'

export interface Reporting {
	readonly report: Payload<'report'>
	readonly now: number
}

export interface MadeReport {
	readonly subject: string
	readonly body: string
	readonly link: string | null
	readonly table: number
	/** Of the table. */
	readonly name: string
	/** Those of it that its reader sees. */
	readonly columns: readonly ShownColumn[]
	readonly shown: ReportTable
	/** How many rows they see, counted up to one more than leave as a file. */
	readonly rows: number
}

/** More rows than anybody reads in a message; a file holds the rest. */
const MOST_SHOWN = 100
/** More rows than leave by mail as a file. */
export const MOST_IN_FILE = 50_000
const PAGE = 1_000
/** How many bands are wanted, where nobody says how wide they are. */
const ABOUT = 12

/** Null where there is nothing for them: they see nothing of the table, or no row, and it is sent only of rows. */
export function makeReport(store: Store, { report, now }: Reporting): MadeReport | null {
	const { step, person, app } = report
	const table = store.workspace().catalogue.tables.get(step.table)
	const request = table && requestOf(store, { report, now })
	if (!table || !request) return null
	const actor = { person }
	const page = readRows(store, actor, { ...request, limit: MOST_SHOWN }, now)
	const rows = countRows(store, actor, { ...request, limit: MOST_IN_FILE + 1 }, now)
	if (page.columns.length === 0 || (rows === 0 && !step.none)) return null
	const columns = describeColumns(table, page.columns)
	const shown = step.by
		? countedTable(store, { by: step.by, table, columns, request, report, now })
		: rowsTable(table, { columns, page, rows })
	if (!shown) return null
	const words = (text: string) => composeFor(store, text, { ...rowsAround(store, report), to: person, now })
	const link = step.opens ? `/app/${app}/${step.opens}` : null
	return {
		...{ subject: words(step.subject), body: words(step.body), link },
		...{ table: table.id, name: table.name, columns, shown, rows }
	}
}

/** The rows for its file, page by page. */
export function reportRows(store: Store, { report, now, after }: Reporting & { after: string | undefined }): WirePage {
	const request = requestOf(store, { report, now })
	if (!request) return { rows: [], next: null, columns: [] }
	return readRows(store, { person: report.person }, { ...request, limit: PAGE, after }, now)
}

/** Undefined where the row at hand is of a table that is gone. */
function requestOf(store: Store, { report, now }: Reporting): RowsRequest | undefined {
	const { step, person } = report
	const { at } = rowsAround(store, report)
	if (report.at && !at) return undefined
	const [sort, ...then] = step.sort
	return {
		...{ table: step.table, columns: shownBy(step), where: [step.where], sort, then },
		...(at ? { given: givenOf(store, at, standingOf(store, { person }, now)) } : {})
	}
}

function shownBy({ by, columns }: ReportStep): readonly number[] {
	return by ? [by.column, ...columns.filter((column) => column !== by.column)] : columns
}

function rowsAround(store: Store, { at, outer }: Payload<'report'>) {
	const of = (row: { table: number; n: number } | null): RowAt | undefined => {
		const table = row ? store.workspace().catalogue.tables.get(row.table) : undefined
		return row && table ? { table, n: row.n } : undefined
	}
	return { at: of(at), outer: of(outer) }
}

function rowsTable(
	{ name }: Table,
	{ columns, page, rows }: { columns: readonly ShownColumn[]; page: WirePage; rows: number }
): ReportTable {
	return {
		title: name,
		heads: columns.map(({ name, type, shows }) => ({ name, isNumber: NUMBERS.has(shows ?? type) })),
		rows: page.rows.map((row) => columns.map((column) => showCell(column, row.cells[cellKey(column.id)]))),
		...{ foot: [], more: rows - page.rows.length, note: '' }
	}
}

interface Counting extends Reporting {
	readonly by: Grouping
	readonly table: Table
	readonly columns: readonly ShownColumn[]
	readonly request: RowsRequest
}

/** How many rows there are of each kind, and what their numbers come to; undefined where they do not see what it goes by. */
function countedTable(store: Store, counting: Counting): ReportTable | undefined {
	const { table, columns, request, report, now } = counting
	const actor = { person: report.person }
	const by = widthOf(store, counting)
	const asked = { actor, now, by: [by], request: { table: request.table, where: request.where, given: request.given } }
	const counts = readMeasures(store, { ...asked, measure: { of: 'count', column: null } })
	if (!counts) return undefined
	const say = sayNumber(findColumn(table, by.column), { store })
	const { shown, more } = groupsAlong(counts, 0, { table, by, most: MOST_SHOWN, say })
	const summed = columns.flatMap(({ id, name }) => {
		const sums = id === by.column ? null : readMeasures(store, { ...asked, measure: { of: 'sum', column: id } })
		if (!sums) return []
		const kept = sums.groups.reduce((rows, group) => rows + group.kept, 0)
		return [{ name, of: valuesOf(sums), say: sayNumber(findColumn(table, id), { store }), kept }]
	})
	const counted = valuesOf(counts)
	const head = columns.find(({ id }) => id === by.column)?.name ?? ''
	return {
		title: table.name,
		heads: [head, table.name, ...summed.map(({ name }) => name)].map((name, i) => ({ name, isNumber: i > 0 })),
		rows: shown.map(({ key, label }) => [
			label === '' ? '(blank)' : label,
			String(counted.get(key) ?? 0),
			...summed.map(({ of, say }) => say(of.get(key) ?? 0))
		]),
		foot: ['All', String(total(counted)), ...summed.map(({ of, say }) => say(total(of)))],
		more: more ?? 0,
		note: [
			...(counts.leftOut > 0 ? [sayLeftOut(counts.leftOut)] : []),
			...summed.flatMap(({ name, kept }) => (kept > 0 ? [`${name} is kept from you on ${countOf(kept, 'row')}`] : []))
		].join('; ')
	}
}

/** Bands as wide as suits what they see, where nobody says how wide. */
function widthOf(store: Store, { by: { column, step }, request, report, now }: Counting): ToldBy {
	if (!isBands(step)) return { column, step }
	if (step !== 'bands') return { column, step: { width: step } }
	const actor = { person: report.person }
	const [spread] = readSpread(store, { actor, now, request, columns: [column] }) ?? []
	return { column, step: { width: spread ? stepWidth(spread.least, spread.most, ABOUT) : 1 } }
}

function valuesOf({ groups }: Measures): ReadonlyMap<string | null, number> {
	return new Map(groups.map(({ keys, value }) => [keys[0] ?? null, value ?? 0]))
}

function total(values: ReadonlyMap<string | null, number>): number {
	return Number([...values.values()].reduce((sum, value) => sum + value, 0).toPrecision(15))
}
