/** Workbooks: XLSX by a library that keeps dates apart from numbers, ODS by one that reads it. */
import XLSX from '@e965/xlsx'
import ExcelJS from 'exceljs'
import { readFile } from 'node:fs/promises'
import { AppError } from '$lib/core/app-error.ts'
import { unfoldsWithin } from './archive-size.ts'
import { ErrorCells, notesOf } from './workbook-notes.ts'
import { NOTHING_HELD, refusedFile, sheetOf, type OpenedFile } from './sheet.ts'

/** The most that a workbook may unfold to. */
const MAX_UNPACKED = 600 * 1024 * 1024
const MAX_CELLS = 8_000_000

export async function openWorkbook(path: string, name: string): Promise<OpenedFile> {
	const bytes = await readFile(path)
	if (!(await unfoldsWithin(bytes, MAX_UNPACKED)))
		throw refusedFile(
			`${name} is damaged, or unfolds to more than fits. Open it in your spreadsheet and save the sheet as CSV.`
		)
	const sheets = isOpenDocument(bytes) ? readOpenDocument(bytes, name) : await readXlsx(bytes, name)
	const filled = sheets.filter((sheet) => sheet.rows.length > 0)
	if (filled.length === 0) throw refusedFile(`${name} holds no filled sheet. Nothing was brought in.`)
	const opened = filled.map(({ name, rows, notes }) => ({ ...sheetOf(name, rows), notes }))
	return { kind: 'workbook', sheets: opened, close: NOTHING_HELD }
}

interface Rows {
	readonly name: string
	readonly rows: readonly (readonly string[])[]
	readonly notes: readonly string[]
}

/** By the names in the archive's directory: a spreadsheet of OpenDocument keeps its cells in content.xml (ODF 1.3, 2.2). */
function isOpenDocument(bytes: Buffer): boolean {
	return bytes.includes('content.xml', 0, 'latin1') && !bytes.includes('xl/workbook.xml', 0, 'latin1')
}

function readOpenDocument(bytes: Buffer, name: string): Rows[] {
	try {
		const book = XLSX.read(bytes, { type: 'buffer', cellDates: true, UTC: true })
		return book.SheetNames.map((sheet) => {
			const cells = book.Sheets[sheet] ?? {}
			refuseTooLarge(sheet, XLSX.utils.decode_range(cells['!ref'] ?? 'A1').e)
			const errors = settleCells(cells)
			const found = XLSX.utils.sheet_to_json<unknown[]>(cells, {
				header: 1,
				raw: true,
				defval: '',
				blankrows: true,
				UTC: true
			})
			const notes = notesOf({ isHidden: false, hiddenRows: [], hiddenColumns: [], errors })
			return { name: sheet, rows: trimEnd(found.map((row) => row.map(looseText))), notes }
		})
	} catch (error) {
		if (error instanceof AppError) throw error
		throw refusedFile(`${name} is damaged, or is no workbook. Open it in your spreadsheet and save it again.`)
	}
}

/** Times of day and spans have a format without day, month or year. */
const TIME_FORMAT = /^\[?h+\]?(:m+)?(:s+)?(\.0+)?( AM\/PM)?$/i
/** The library gives them as dates from here on, or as parts of a day where its calendar has none: 29 February 1900. */
const TIME_NOUGHT = Date.UTC(1899, 11, 31)
const AFTER_NO_DAY = Date.UTC(1900, 2, 1)
const DAY = 86_400_000
/** A date that is shown by its clock alone is a date. */
const LAST_SPAN = Date.UTC(1910, 0, 1)
/** Faults that the office program shows as text of its own. */
const SHOWN_FAULT = /^Err:\d{3}$/

/** Makes times texts, and takes out cells that show an error. @returns those */
function settleCells(cells: XLSX.WorkSheet): ErrorCells {
	const errors = new ErrorCells()
	for (const [at, cell] of Object.entries(cells) as [string, XLSX.CellObject][]) {
		if (at.startsWith('!')) continue
		if (cell.t === 'e' || (cell.f !== undefined && SHOWN_FAULT.test(String(cell.v)))) {
			errors.add(at, cell.w ?? '')
			cells[at] = { t: 'z' }
		} else {
			const spent = TIME_FORMAT.test(String(cell.z ?? '')) ? spentOf(cell.v) : undefined
			if (spent !== undefined) cells[at] = { t: 's', v: clockText(Math.round(spent / 1000)) }
		}
	}
	return errors
}

/** Milliseconds of a time or a span, as the library gives it. */
function spentOf(value: XLSX.CellObject['v']): number | undefined {
	if (typeof value === 'number') return value * DAY
	if (!(value instanceof Date) || value.getTime() >= LAST_SPAN) return undefined
	return value.getTime() - TIME_NOUGHT + (value.getTime() >= AFTER_NO_DAY ? DAY : 0)
}

function refuseTooLarge(sheet: string, last: { readonly r: number; readonly c: number }): void {
	if ((last.r + 1) * (last.c + 1) > MAX_CELLS)
		throw refusedFile(`The sheet ${sheet} is too large. Save it as CSV and bring that in.`)
}

async function readXlsx(bytes: Buffer, name: string): Promise<Rows[]> {
	const workbook = new ExcelJS.Workbook()
	try {
		await workbook.xlsx.load(bytes as unknown as ArrayBuffer, {
			ignoreNodes: ['dataValidations', 'conditionalFormatting', 'drawing', 'picture']
		})
	} catch {
		throw refusedFile(`${name} is damaged, or is no workbook. Open it in your spreadsheet and save it again.`)
	}
	return workbook.worksheets.map(toRows)
}

function toRows(sheet: ExcelJS.Worksheet): Rows {
	refuseTooLarge(sheet.name, { r: sheet.rowCount - 1, c: sheet.columnCount - 1 })
	const width = sheet.columnCount
	const rows: string[][] = []
	const hiddenRows: number[] = []
	const errors = new ErrorCells()
	for (let r = 1; r <= sheet.rowCount; r++) {
		const row = sheet.getRow(r)
		if (row.hidden) hiddenRows.push(r)
		rows.push(
			Array.from({ length: width }, (_each, c) => {
				const cell = row.getCell(c + 1)
				const error = errorOf(cell)
				if (error !== undefined) errors.add(cell.address, error)
				return cellText(cell)
			})
		)
	}
	const columns = Array.from({ length: width }, (_each, c) => sheet.getColumn(c + 1))
	const hiddenColumns = columns.filter(({ hidden }) => hidden).map(({ letter }) => letter)
	const notes = notesOf({ isHidden: sheet.state !== 'visible', hiddenRows, hiddenColumns, errors })
	return { name: sheet.name, rows: trimEnd(rows), notes }
}

/** The error that a cell shows, its own or its formula's. */
function errorOf(cell: ExcelJS.Cell): string | undefined {
	if (isCovered(cell)) return undefined
	const { value } = cell
	const shown: unknown = value && typeof value === 'object' && 'result' in value ? value.result : value
	return shown && typeof shown === 'object' && 'error' in shown ? String(shown.error) : undefined
}

function trimEnd(rows: string[][]): string[][] {
	while (rows.length > 0 && rows[rows.length - 1]?.every((cell) => cell === '')) rows.pop()
	return rows
}

/** The text of a cell: dates as ISO 8601, formulas by their value, merged cells only once. */
function cellText(cell: ExcelJS.Cell): string {
	if (isCovered(cell)) return ''
	return valueText(cell.value)
}

/** Of merged cells the first alone holds something. */
function isCovered(cell: ExcelJS.Cell): boolean {
	return cell.isMerged && cell.master !== cell
}

function valueText(value: ExcelJS.CellValue): string {
	if (value === null || value === undefined) return ''
	if (value instanceof Date) return dateText(value)
	if (typeof value !== 'object') return String(value)
	if ('richText' in value) return value.richText.map((part) => part.text).join('')
	if ('result' in value) return valueText((value.result ?? null) as ExcelJS.CellValue)
	if ('error' in value) return ''
	return 'text' in value ? valueText(value.text as ExcelJS.CellValue) : ''
}

function looseText(value: unknown): string {
	if (value === null || value === undefined) return ''
	return value instanceof Date ? dateText(value) : String(value)
}

/** A spreadsheet counts days from here, so a time of day or a span of time is a date on or soon after it. */
const DAY_NOUGHT = Date.UTC(1899, 11, 30)
const FIRST_YEAR = Date.UTC(1900, 0, 1)

/** As a clock on the wall shows it: a spreadsheet knows no time zones. To the second, since it keeps parts of a day. */
function dateText(date: Date): string {
	const seconds = Math.round(date.getTime() / 1000)
	if (Number.isNaN(seconds)) return ''
	if (seconds * 1000 < FIRST_YEAR && seconds * 1000 >= DAY_NOUGHT) return clockText(seconds - DAY_NOUGHT / 1000)
	const [day = '', clock = ''] = new Date(seconds * 1000).toISOString().slice(0, 19).split('T')
	return clock === '00:00:00' ? day : `${day} ${clock}`
}

/** `14:30`, with seconds where there are some. */
function clockText(all: number): string {
	const [hours, minutes, seconds] = [Math.floor(all / 3600), Math.floor(all / 60) % 60, all % 60]
	const parts = seconds > 0 ? [hours, minutes, seconds] : [hours, minutes]
	return parts.map((part) => String(part).padStart(2, '0')).join(':')
}
