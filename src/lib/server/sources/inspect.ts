/**
 * Looks at a file that was given in: its first rows as they are, where its headings stand, what its columns are.
 *
 * The whole of it is read once, in pieces: what stands in each column is gathered as the rows pass by.
 */
import { AppError } from '$lib/core/app-error.ts'
import { ColumnCollector } from '$lib/core/exchange/collect.ts'
import { findHeadings, joinHeadings, nameColumns, type Headings } from '$lib/core/exchange/headings.ts'
import { inferCollected, type ColumnGuess } from '$lib/core/exchange/infer.ts'
import { LONGEST_TEXT } from '$lib/core/table/kinds/long-text.ts'
import { openNoRows, unitsOf, type NoRow, type NoRowFinder } from '$lib/core/exchange/no-rows.ts'
import { ownCopy } from '$lib/core/text/own-copy.ts'
import { openFile } from './open-file.ts'
import type { Sheet } from './sheet.ts'

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

export interface Inspection {
	readonly sheets: readonly string[]
	readonly sheet: string
	readonly headingRow: number | null
	readonly firstRow: number
	readonly overTwo: boolean
	readonly rowCount: number
	/** The first rows of the sheet, as they stand. */
	readonly head: readonly (readonly string[])[]
	readonly columns: readonly ColumnGuess[]
	/** Rows, as people count, with a quote in the wrong place: what comes after it may have run together. */
	readonly damaged: readonly number[]
	/** Rows that are no records: left out, unless they are kept. */
	readonly noRows: readonly NoRow[]
	/** Columns that are filled in the first row of a group only. */
	readonly groups: readonly number[]
	/** What of the sheet is left aside, in the reader's words. */
	readonly notes: readonly string[]
	/** The column by which a row is most likely known. */
	readonly label: number
}

const SHOWN_ROWS = 60
const MOST_DAMAGED = 50
/** As many as a table may have (`core/workspace/document.ts`). */
const MOST_COLUMNS = 500
/** A preview shows what a cell begins with. */
const SHOWN_CHARACTERS = 300

function cutShort(cell: string): string {
	return cell.length > SHOWN_CHARACTERS ? `${cell.slice(0, SHOWN_CHARACTERS)}…` : cell
}

/** Columns with a cell that is longer than any type of column takes: said before anything is settled. */
function tooLong(names: readonly string[], collectors: readonly ColumnCollector[]): string[] {
	return collectors.flatMap(({ longest }, i) =>
		longest.length > LONGEST_TEXT
			? [
					`${names[i] ?? ''}: row ${longest.row} holds ${longest.length.toLocaleString('en-GB')} characters, and a cell takes at most ${LONGEST_TEXT.toLocaleString('en-GB')}. It will be listed as unread.`
				]
			: []
	)
}

/** Enough to find the headings and the width by. */
const HEAD_ROWS = 1_000
/** Enough to tell by whether a column's values are all different. */
const SAMPLE_ROWS = 5_000

export async function inspectFile(request: InspectRequest): Promise<Inspection> {
	const { path, name } = request
	const file = await openFile(path, name)
	try {
		const chosen = file.sheets.find((each) => each.name === request.sheet) ?? file.sheets[0]
		if (!chosen) throw new AppError('invalid', `${name} holds no filled sheet.`)
		const looked = await lookThrough(chosen, request)
		if (looked.head.length === 0) throw new AppError('invalid', `${name} is empty. Nothing was brought in.`)
		if (looked.width > MOST_COLUMNS)
			throw new AppError(
				'invalid',
				`${name} has ${looked.width.toLocaleString('en-GB')} columns, and a table takes at most ${MOST_COLUMNS}. Split it, or turn it so that its columns are rows.`
			)
		const names = nameColumns(headingsIn(looked), looked.width)
		const columns = names.map((each, i) => {
			const guess = inferCollected(each, looked.collectors[i]?.collected() ?? [])
			const unit = looked.units[i]
			return unit === undefined || guess.unit !== undefined ? guess : { ...guess, unit }
		})
		return {
			sheets: file.sheets.map((each) => each.name),
			sheet: chosen.name,
			headingRow: looked.headingRow,
			firstRow: looked.firstRow,
			overTwo: looked.overTwo,
			rowCount: looked.rowCount,
			noRows: looked.noRows,
			groups: groupsIn(looked),
			head: looked.head.slice(0, SHOWN_ROWS).map((row) => row.map(cutShort)),
			columns,
			damaged: looked.damaged,
			notes: [...(chosen.notes ?? []), ...tooLong(names, looked.collectors)],
			label: chosen.said?.key ?? proposeLabel(columns, looked)
		}
	} finally {
		file.close()
	}
}

function headingsIn({
	head,
	headingRow,
	overTwo
}: Pick<Looked, 'head' | 'headingRow' | 'overTwo'>): readonly string[] | undefined {
	if (headingRow === null) return undefined
	const row = head[headingRow] ?? []
	return overTwo ? joinHeadings(head[headingRow - 1] ?? [], row) : row
}

interface Looked extends Headings {
	readonly head: readonly (readonly string[])[]
	readonly sample: readonly (readonly string[])[]
	readonly width: number
	readonly rowCount: number
	readonly collectors: readonly ColumnCollector[]
	readonly damaged: readonly number[]
	readonly noRows: readonly NoRow[]
	/** From a row of units, by column. */
	readonly units: readonly (string | undefined)[]
}

const MOST_NO_ROWS = 500
/** Notes at the end of a sheet are few; more rows of one cell are a table of its own kind. */
const MOST_NOTES = 20

/** Columns near the left that say something in the first row of a group alone, while the others are filled throughout. */
function groupsIn({ sample, width }: Looked): number[] {
	if (sample.length < 4 || width < 3) return []
	const shares = Array.from({ length: width }, (_column, i) => {
		const filled = sample.filter((row) => (row[i] ?? '').trim() !== '').length
		return filled / sample.length
	})
	const isGroup = (i: number) => (shares[i] ?? 0) > 0 && (shares[i] ?? 0) <= 0.6 && (sample[0]?.[i] ?? '').trim() !== ''
	const full = shares.filter((share) => share >= 0.95).length
	return [0, 1].filter((i) => isGroup(i) && full >= Math.max(2, (width - 2) * 0.6))
}

async function lookThrough(sheet: Sheet, request: InspectRequest): Promise<Looked> {
	const head: (readonly string[])[] = []
	const sample: (readonly string[])[] = []
	let settled: (Headings & { width: number; collectors: ColumnCollector[]; finder: NoRowFinder }) | undefined
	const noRows: NoRow[] = []
	let units: (string | undefined)[] = []
	/** Rows that look like notes, until it is known whether records follow. */
	const maybe: { readonly row: readonly string[]; readonly at: number }[] = []
	const damaged: number[] = []
	let rowCount = 0
	let at = 0
	let before = 0
	const settle = () => {
		const width = sheet.said?.columns.length ?? head.reduce((most, row) => Math.max(most, row.length), 0)
		const collectors = Array.from({ length: width }, () => new ColumnCollector())
		const headings = headingsOf(head, request, sheet)
		const finder = openNoRows(headingsIn({ head, ...headings }), width)
		settled = { ...headings, width, collectors, finder }
		for (const row of head) take(row)
	}
	const take = (row: readonly string[]) => {
		const i = at++
		if (!settled || i < settled.firstRow || row.every((cell) => cell.trim() === '')) return
		const what = sheet.said ? undefined : settled.finder.judge(row)
		if (what === 'note' && maybe.length < MOST_NOTES) return void maybe.push({ row: row.map(ownCopy), at: i })
		for (const each of maybe.splice(0)) count(each.row, each.at)
		if (what === undefined || what === 'note' || noRows.length >= MOST_NO_ROWS) return count(row, i)
		if (what === 'units') units = unitsOf(row)
		noRows.push({ row: i + 1, what, text: beginningOf(row) })
	}
	const count = (row: readonly string[], i: number) => {
		rowCount++
		if (sample.length < SAMPLE_ROWS) sample.push(row.map(ownCopy))
		settled?.collectors.forEach((collector, column) => collector.add(row[column] ?? '', i + 1))
	}
	for await (const { rows, damaged: here = [] } of sheet.batches()) {
		for (const place of here) if (damaged.length < MOST_DAMAGED) damaged.push(before + place + 1)
		before += rows.length
		for (const row of rows) {
			if (settled) take(row)
			else head.push(row.map(ownCopy))
			if (!settled && head.length === HEAD_ROWS) settle()
		}
	}
	if (!settled) settle()
	if (!settled) throw new Error('Expected the headings of a sheet to be settled')
	// Where nothing else is there, they are the records.
	if (rowCount === 0) for (const each of maybe.splice(0)) count(each.row, each.at)
	for (const { row, at: i } of maybe) noRows.push({ row: i + 1, what: 'note', text: beginningOf(row) })
	const { headingRow, firstRow, overTwo, width, collectors } = settled as Headings & {
		width: number
		collectors: ColumnCollector[]
	}
	return { head, sample, rowCount, damaged, noRows, units, headingRow, firstRow, overTwo, width, collectors }
}

function beginningOf(row: readonly string[]): string {
	return row
		.map((cell) => cell.trim())
		.filter((cell) => cell !== '')
		.join(' · ')
		.slice(0, 80)
}

/** As the builder says, as the file says, or as it looks. */
function headingsOf(head: readonly (readonly string[])[], request: InspectRequest, sheet: Sheet): Headings {
	const { headingRow, firstRow, overTwo } = request
	const found = sheet.said ? { headingRow: 0, firstRow: 1, overTwo: false } : findHeadings(head)
	const heading = headingRow === undefined ? found.headingRow : headingRow
	const least = (heading ?? -1) + 1
	return {
		headingRow: heading,
		overTwo: headingRow === undefined ? found.overTwo : (overTwo ?? false) && (heading ?? 0) > 0,
		firstRow: Math.max(firstRow ?? (headingRow === undefined ? found.firstRow : least), least)
	}
}

/** What rows are known by: the column whose name means a name, else the first whose values are all there and all different. */
function proposeLabel(columns: readonly ColumnGuess[], looked: Looked): number {
	const { sample } = looked
	const groups = groupsIn(looked)
	const shares = columns.map((column, i) => {
		if (column.blank || !KNOWN_BY.has(column.type)) return 0
		const values = sample.map((row) => (row[i] ?? '').trim().toLowerCase()).filter((value) => value !== '')
		return new Set(values).size / Math.max(1, sample.length)
	})
	const named = columns.findIndex(({ name }, i) => MEANS_NAME.test(name.trim()) && (shares[i] ?? 0) >= NEARLY_ALL)
	if (named >= 0) return named
	// Whole numbers that differ are measures as often as numbers things go by.
	const isWord = ({ name, type }: ColumnGuess, i: number) =>
		type !== 'whole number' || i === 0 || MEANS_NUMBER.test(name.trim())
	const unique = columns.findIndex((column, i) => shares[i] === 1 && isWord(column, i))
	if (unique >= 0) return unique
	const first = columns.findIndex((column, i) => !column.blank && isWord(column, i) && !groups.includes(i))
	return Math.max(0, first)
}

const KNOWN_BY: ReadonlySet<string> = new Set(['text', 'code', 'whole number'])
const MEANS_NAME = /^((full |item |product |short )?name|title|item|article|subject|what( for)?)$/i
const MEANS_NUMBER = /\b(no\.?|nr\.?|number|id|code|ref|reference)$/i
/** Two of a name among twenty rows are still told apart by what stands beside them. */
const NEARLY_ALL = 0.9
