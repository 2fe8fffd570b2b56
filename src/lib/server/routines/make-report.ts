/**
 * Writes a report for whoever gets it: its words, its rows and its counts are read with their sight of this moment, through the
 * door as any page of theirs. What its builder may see is neither asked nor told.
 */
import { sayLeftOut } from '$lib/core/chart/left-out.ts'
import { stepWidth } from '$lib/core/query/bands.ts'
import type { WirePage } from '$lib/core/query/wire.ts'
import type { PagePart, ReportTable } from '$lib/core/requests/report.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import type { ReportStep } from '$lib/core/routine/report-step.ts'
import { isBands, type Grouping } from '$lib/core/sentence/slots/measure.ts'
import { countOf } from '$lib/core/text/count.ts'
import { groupsAlong, type ToldBy } from '../rows/groups-along.ts'
import { readRows } from '../rows/read.ts'
import { readMeasures, readSpread, type Measures } from '../rows/read-measures.ts'
import type { RowsRequest } from '../rows/resolve.ts'
import { sayNumber } from '../rows/say-number.ts'
import type { Store } from '../store/store.ts'
import { composeFor } from './compose.ts'
import type { FileWanted, MadeReport } from './made-report.ts'
import { makeDocument } from './make-document.ts'
import { requestFor, rowsAround, rowsFor, type Writing } from './read-for.ts'

/** More rows than anybody reads in a message; a file holds the rest. */
const MOST_SHOWN = 100
/** More rows than leave by mail as a file, and than anybody prints. */
const MOST_IN_FILE = 50_000
const MOST_ON_PAPER = 2_000
const PAGE = 1_000
/** How many bands are wanted, where nobody says how wide they are. */
const ABOUT = 12

/** Null where there is nothing for them: they see nothing of the table, or no row, and it is sent only of rows. */
export function makeReport(store: Store, writing: Writing): MadeReport | null {
	const { report, now } = writing
	const { step, person, app } = report
	if (step.kind === 'document') return makeDocument(store, step, writing)
	const { at, outer } = rowsAround(store, report)
	const table = store.workspace().catalogue.tables.get(step.table)
	if (!table || (report.at && !at)) return null
	const request = requestFor(store, writing, { ...step, columns: shownBy(step) })
	const isPaper = step.attached === 'a PDF file'
	const show = isPaper ? MOST_ON_PAPER : MOST_SHOWN
	const found = rowsFor(store, writing, { request, show, count: MOST_IN_FILE })
	if (!found || (found.rows === 0 && !step.none)) return null
	const { columns, rows } = found
	const whole = step.by ? countedTable(store, { by: step.by, table, columns, request, report, now }) : found.shown
	if (!whole) return null
	const words = (text: string) => composeFor(store, text, { at, outer, to: person, now })
	const [subject, body] = [words(step.subject), words(step.body)]
	const pages: PagePart[] = [
		{ kind: 'heading', text: subject },
		{ kind: 'words', text: body },
		{ kind: 'rows', table: whole }
	]
	return {
		...{ subject, body, link: step.opens ? `/app/${app}/${step.opens}` : null },
		...{
			table: table.id,
			what: columns.map(({ name }) => name).join(', '),
			rows,
			shown: { ...shortened(whole), note: noteOf(step, whole, rows) }
		},
		file: isPaper ? { kind: 'pages', name: table.name, pages } : fileOf(step, table, { columns, rows })
	}
}

/** Null where none is wanted, or it would be larger than what leaves by mail: the message says how many rows there are. */
function fileOf(
	{ attached }: ReportStep,
	{ name }: Table,
	{ columns, rows }: { columns: readonly ShownColumn[]; rows: number }
): FileWanted | null {
	const as = attached ?? undefined
	if (as === undefined || as === 'a PDF file' || rows > MOST_IN_FILE) return null
	return { kind: 'rows', as, name, columns }
}

/** What is in neither the message nor the file. */
function noteOf({ attached }: ReportStep, { note }: ReportTable, rows: number): string {
	if (attached === 'a PDF file' && rows > MOST_ON_PAPER)
		return `the file holds the first ${countOf(MOST_ON_PAPER, 'row')}`
	return attached && rows > MOST_IN_FILE ? `more than ${countOf(MOST_IN_FILE, 'row')} do not come as a file` : note
}

function shortened(table: ReportTable): ReportTable {
	const cut = Math.max(0, table.rows.length - MOST_SHOWN)
	return cut === 0 ? table : { ...table, rows: table.rows.slice(0, MOST_SHOWN), more: table.more + cut }
}

/** The rows for its file, page by page. */
export function reportRows(store: Store, { after, ...writing }: Writing & { after: string | undefined }): WirePage {
	const { report, now } = writing
	const { step, person } = report
	const isGone = report.at && !rowsAround(store, report).at
	if (step.kind === 'document' || isGone) return { rows: [], next: null, columns: [] }
	const request = requestFor(store, writing, { ...step, columns: shownBy(step) })
	return readRows(store, { person }, { ...request, limit: PAGE, after }, now)
}

function shownBy({ by, columns }: ReportStep): readonly number[] {
	return by ? [by.column, ...columns.filter((column) => column !== by.column)] : columns
}

interface Counting extends Writing {
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
