/** Reads a sheet once from its first row to its last, and gathers what is told of it: where its headings and rows are, and what stands in its columns. */
import { AppError } from '$lib/core/app-error.ts'
import { ColumnCollector } from '$lib/core/exchange/collect.ts'
import { findHeadings, joinHeadings, type HeadingSpan, type Headings } from '$lib/core/exchange/headings.ts'
import { openNoRows, unitsOf, type NoRow, type NoRowFinder } from '$lib/core/exchange/no-rows.ts'
import { countOf } from '$lib/core/text/count.ts'
import { ownCopy } from '$lib/core/text/own-copy.ts'
import type { RowBatch, Sheet } from './sheet.ts'

export interface InspectRequest {
	readonly path: string
	readonly name: string
	readonly sheet?: string | undefined
	/** Counted from 0; undefined proposes. */
	readonly headingRow?: number | null | undefined
	readonly firstRow?: number | undefined
	/** Whether the row above the heading row belongs to it. */
	readonly overTwo?: boolean | undefined
}

export interface Looked extends Headings {
	readonly head: readonly Row[]
	readonly sample: readonly Row[]
	readonly width: number
	/** What the columns are called, as it stands there; undefined where there are no headings. */
	readonly headings: Row | undefined
	readonly rowCount: number
	readonly collectors: readonly ColumnCollector[]
	readonly damaged: readonly number[]
	readonly noRows: readonly NoRow[]
	/** From a row of units, by column. */
	readonly units: readonly (string | undefined)[]
	/** What is left aside, in the reader's words. */
	readonly notes: readonly string[]
}

type Row = readonly string[]

/** Enough to find the headings and the width by. */
const HEAD_ROWS = 1_000
/** Enough to tell by whether a column's values are all different. */
const SAMPLE_ROWS = 5_000
const MOST_DAMAGED = 50
/** As many as can be left out by number (`core/exchange/plan.ts`). */
const MOST_NO_ROWS = 5_000
/** Notes at the end of a sheet are few; more rows of one cell are a table of its own kind. */
const MOST_NOTES = 50
/** As many as a table may have (`core/workspace/document.ts`). */
const MOST_COLUMNS = 500

export async function lookThrough(sheet: Sheet, request: InspectRequest): Promise<Looked> {
	const look = new Look(sheet, request)
	for await (const batch of sheet.batches()) look.take(batch)
	return look.end()
}

/** What is known once the first rows have been seen. */
interface Settled extends Headings {
	readonly width: number
	readonly headings: Row | undefined
	readonly collectors: readonly ColumnCollector[]
	readonly finder: NoRowFinder
}

class Look {
	private readonly head: Row[] = []
	private readonly headTyped: (ReadonlySet<number> | undefined)[] = []
	private readonly spans: HeadingSpan[] = []
	private readonly sample: Row[] = []
	private readonly noRows: NoRow[] = []
	private readonly damaged: number[] = []
	private readonly far = new FarCells()
	private settled: Settled | undefined
	private units: (string | undefined)[] = []
	/** Rows that look like notes, until it is known whether records follow. */
	private maybe: { readonly row: Row; readonly at: number }[] = []
	/** Rows that look like none, after so many that they can no longer be left out one by one. */
	private unlisted = 0
	/** Whether anything has been seen. */
	private isFilled = false
	private rowCount = 0
	/** Whether a blank row stands between this row and the last record. */
	private isAfterGap = false
	private at = 0
	private before = 0
	private readonly sheet: Sheet
	private readonly request: InspectRequest

	constructor(sheet: Sheet, request: InspectRequest) {
		this.sheet = sheet
		this.request = request
	}

	take({ rows, damaged = [], typed, spans = [] }: RowBatch): void {
		for (const place of damaged) if (this.damaged.length < MOST_DAMAGED) this.damaged.push(this.before + place + 1)
		this.before += rows.length
		if (!this.settled) this.spans.push(...spans)
		for (const [i, row] of rows.entries()) {
			if (this.settled) {
				this.judge(this.settled, row, typed?.[i])
				continue
			}
			this.head.push(row.map(ownCopy))
			this.headTyped.push(typed?.[i])
			this.isFilled ||= !row.every(isBlank)
			// Whatever stands far down under blank rows is looked for.
			if (this.head.length >= HEAD_ROWS && this.isFilled) this.settle()
		}
	}

	end(): Looked {
		const settled = this.settled ?? this.settle()
		// Where nothing else is there, they are the records.
		if (this.rowCount === 0) for (const { row, at } of this.maybe.splice(0)) this.count(settled, row, at, undefined)
		for (const { row, at } of this.maybe) this.noRows.push({ row: at + 1, what: 'note', text: beginningOf(row) })
		const { head, sample, rowCount, damaged, noRows, units } = this
		return {
			...settled,
			head,
			sample,
			rowCount,
			damaged,
			noRows,
			units,
			notes: [...this.far.notes(), ...this.moreNotes()]
		}
	}

	private settle(): Settled {
		const { head, sheet } = this
		const found = headingsOf(head, this.request, sheet, this.spans)
		const headings = headingsIn(head, found, this.spans)
		const width = sheet.said?.columns.length ?? widthOf(head, found, headings)
		if (width > MOST_COLUMNS)
			throw new AppError(
				'invalid',
				`${this.request.name} has ${width.toLocaleString('en-GB')} columns, and a table takes at most ${MOST_COLUMNS}. Split it, or turn it so that its columns are rows.`
			)
		const collectors = Array.from({ length: width }, () => new ColumnCollector())
		this.settled = { ...found, width, headings, collectors, finder: openNoRows(headings, width) }
		for (const [i, row] of head.entries()) this.judge(this.settled, row, this.headTyped[i])
		return this.settled
	}

	private judge(settled: Settled, whole: Row, typed: ReadonlySet<number> | undefined): void {
		const at = this.at++
		if (at < settled.firstRow) return
		const row = whole.length > settled.width ? whole.slice(0, settled.width) : whole
		if (row !== whole) this.far.add(whole.slice(settled.width), at)
		if (row.every(isBlank)) {
			this.isAfterGap = true
			return
		}
		const what = this.sheet.said ? undefined : settled.finder.judge(row, this.isAfterGap && this.rowCount > 0)
		if (what === 'note' && this.maybe.length < MOST_NOTES) return void this.maybe.push({ row: row.map(ownCopy), at })
		this.isAfterGap = false
		for (const each of this.maybe.splice(0)) this.count(settled, each.row, each.at, undefined)
		if (what === undefined || what === 'note') return this.count(settled, row, at, typed)
		if (this.noRows.length >= MOST_NO_ROWS) {
			this.unlisted++
			return this.count(settled, row, at, typed)
		}
		if (what === 'units') this.units = unitsOf(row)
		this.noRows.push({ row: at + 1, what, text: beginningOf(row) })
	}

	private count({ collectors }: Settled, row: Row, at: number, typed: ReadonlySet<number> | undefined): void {
		this.rowCount++
		if (this.sample.length < SAMPLE_ROWS) this.sample.push(row.map(ownCopy))
		for (const [column, collector] of collectors.entries())
			collector.add(row[column] ?? '', at + 1, typed?.has(column) ?? false)
	}

	private moreNotes(): string[] {
		return this.unlisted === 0
			? []
			: [
					`${countOf(this.unlisted, 'further row')} ${this.unlisted === 1 ? 'looks' : 'look'} like totals or headings, and ${this.unlisted === 1 ? 'comes in as a row' : 'come in as rows'}. Take what is none out of the file first.`
				]
	}
}

/** Cells to the right of the last column: named, since nothing of them comes in. */
class FarCells {
	private cells = 0
	private first = ''

	add(cells: Row, at: number): void {
		for (const text of cells) {
			if (isBlank(text)) continue
			if (this.cells++ === 0) this.first = `"${text.trim().slice(0, 40)}" in row ${(at + 1).toLocaleString('en-GB')}`
		}
	}

	notes(): string[] {
		if (this.cells === 0) return []
		return this.cells === 1
			? [`1 cell stands apart, to the right of the last column, and is left aside: ${this.first}.`]
			: [
					`${countOf(this.cells, 'cell')} stand apart, to the right of the last column, and are left aside, the first of them ${this.first}.`
				]
	}
}

function isBlank(cell: string): boolean {
	return cell.trim() === ''
}

/** How many columns the table has: up to the last that has a heading, and those beside it that are filled without a gap. */
function widthOf(head: readonly Row[], { firstRow }: Headings, headings: Row | undefined): number {
	const filled: number[] = []
	for (const row of head.slice(firstRow))
		for (const [i, cell] of row.entries()) if (!isBlank(cell)) filled[i] = (filled[i] ?? 0) + 1
	const last = headings ? headings.findLastIndex((cell) => !isBlank(cell)) : -1
	const widest = Math.max(filled.length, last + 1)
	if (last < 0) return widest
	const gap = Array.from({ length: widest }).findIndex((_column, i) => i > last && (filled[i] ?? 0) === 0)
	return gap >= 0 ? gap : widest
}

function beginningOf(row: Row): string {
	return row
		.map((cell) => cell.trim())
		.filter((cell) => cell !== '')
		.join(' · ')
		.slice(0, 80)
}

function headingsIn(
	head: readonly Row[],
	{ headingRow, overTwo }: Headings,
	spans: readonly HeadingSpan[]
): Row | undefined {
	if (headingRow === null) return undefined
	const row = head[headingRow] ?? []
	if (!overTwo) return row
	return joinHeadings(
		head[headingRow - 1] ?? [],
		row,
		spans.filter((span) => span.row === headingRow - 1)
	)
}

/** As the builder says, as the file says, or as it looks. */
function headingsOf(
	head: readonly Row[],
	request: InspectRequest,
	sheet: Sheet,
	spans: readonly HeadingSpan[]
): Headings {
	const { headingRow, firstRow, overTwo } = request
	const found = sheet.said ? { headingRow: 0, firstRow: 1, overTwo: false } : findHeadings(head, spans)
	const heading = headingRow === undefined ? found.headingRow : headingRow
	const least = (heading ?? -1) + 1
	return {
		headingRow: heading,
		overTwo: headingRow === undefined ? found.overTwo : (overTwo ?? false) && (heading ?? 0) > 0,
		firstRow: Math.max(firstRow ?? (headingRow === undefined ? found.firstRow : least), least)
	}
}
