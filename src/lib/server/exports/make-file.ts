/**
 * Makes a file of an open format from rows as they travelled, page by page: XLSX and ODS with headings, types and widths, JSON
 * (RFC 8259), or an SQLite file. Runs in the importer's thread, away from everything that must answer quickly.
 */
import XLSX from '@e965/xlsx'
import Database from 'better-sqlite3'
import ExcelJS from 'exceljs'
import { appendFile, writeFile } from 'node:fs/promises'
import { quoteName } from '$lib/core/query/sql.ts'
import { cellKey, isFileCell, isReferenceCell, type WireCell, type WireRow } from '$lib/core/query/wire.ts'
import { wallClock } from '$lib/core/schedule/zone.ts'
import type { ShownColumn } from '../rows/describe-columns.ts'

export const FILE_FORMATS = ['xlsx', 'ods', 'json', 'sqlite'] as const
export type FileFormat = (typeof FILE_FORMATS)[number]

export interface FileHead {
	readonly name: string
	readonly columns: readonly ShownColumn[]
}

export interface FileToMake extends FileHead {
	readonly format: FileFormat
	/** Where it is to lie; made by the program, never by a person. */
	readonly path: string
}

/** A file that is being made: rows are added page by page, then it is ended. */
export interface Making {
	add(rows: readonly WireRow[]): Promise<void>
	end(): Promise<void>
}

const MAKERS: Readonly<Record<FileFormat, (head: FileHead, path: string) => Making>> = {
	xlsx: makeXlsx,
	ods: makeOds,
	json: makeJson,
	sqlite: makeSqlite
}

export function beginFile({ format, path, ...head }: FileToMake): Making {
	return MAKERS[format](head, path)
}

type FileCell = null | string | number | boolean | Date

/** A cell as a file keeps it: dates as dates, references by their label, files by their name, errors and what is unseen as nothing. */
function toFileCell(column: ShownColumn, cell: WireCell | undefined): FileCell {
	if (cell === undefined || cell === null) return null
	if (isReferenceCell(cell)) return cell.label
	if (isFileCell(cell)) return cell.file.name
	if (typeof cell === 'object') return null
	const kind = formatOf(column)
	return kind === 'date' || kind === 'date and time' ? new Date(String(cell)) : cell
}

/** As a spreadsheet keeps it: an instant as the clock on the wall shows it, since a sheet knows no time zones. */
function toSheetCell(column: ShownColumn, cell: WireCell | undefined): FileCell {
	const value = toFileCell(column, cell)
	if (!(value instanceof Date) || formatOf(column) !== 'date and time') return value
	return new Date(wallClock(value.getTime(), column.timeZone ?? 'UTC'))
}

const FORMATS: Readonly<Record<string, string>> = {
	date: 'yyyy-mm-dd',
	'date and time': 'yyyy-mm-dd hh:mm',
	money: '#,##0.00',
	percent: '0.00%',
	time: 'hh:mm',
	duration: '[h]:mm'
}

/** Written row by row: a sheet of a million takes no more memory than one of a thousand. */
function makeXlsx({ name, columns }: FileHead, path: string): Making {
	const book = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: path, useStyles: true, useSharedStrings: false })
	const sheet = book.addWorksheet(sheetName(name), { views: [{ state: 'frozen', ySplit: 1 }] })
	sheet.columns = columns.map((column) => ({
		header: column.unit ? `${column.name} (${column.unit})` : column.name,
		width: Math.min(40, Math.max(10, column.name.length + 3)),
		style: FORMATS[formatOf(column)] ? { numFmt: FORMATS[formatOf(column)] ?? '' } : {}
	}))
	const heading = sheet.getRow(1)
	heading.font = { bold: true }
	heading.commit()
	return {
		async add(rows) {
			for (const row of rows)
				sheet.addRow(columns.map((column) => toSheetCell(column, row.cells[cellKey(column.id)]))).commit()
		},
		async end() {
			sheet.commit()
			await book.commit()
		}
	}
}

function formatOf(column: ShownColumn): string {
	if (column.type !== 'computed') return column.type
	return column.shows === 'datetime' ? 'date and time' : (column.shows ?? '')
}

/** Made whole: its library writes no other way. */
function makeOds({ name, columns }: FileHead, path: string): Making {
	const cells: FileCell[][] = [columns.map((column) => column.name)]
	return {
		async add(rows) {
			for (const row of rows) cells.push(columns.map((column) => toSheetCell(column, row.cells[cellKey(column.id)])))
		},
		async end() {
			const sheet = XLSX.utils.aoa_to_sheet(cells, { cellDates: true, UTC: true })
			const book = XLSX.utils.book_new()
			XLSX.utils.book_append_sheet(book, sheet, sheetName(name))
			await writeFile(path, XLSX.write(book, { type: 'buffer', bookType: 'ods' }) as Buffer, { mode: 0o600 })
		}
	}
}

/** Names of sheets are at most 31 characters, without these signs. */
function sheetName(name: string): string {
	return name.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31)
}

/** An array of records, one a line. */
function makeJson({ columns }: FileHead, path: string): Making {
	let before = '[\n'
	return {
		async add(rows) {
			let text = ''
			for (const row of rows) {
				const cells = columns.map((column) => [
					column.name,
					plain(toFileCell(column, row.cells[cellKey(column.id)]), column)
				])
				text += `${before}\t${JSON.stringify(Object.fromEntries(cells))}`
				before = ',\n'
			}
			await appendFile(path, text, { mode: 0o600 })
		},
		end: () => appendFile(path, before === '[\n' ? '[]\n' : '\n]\n', { mode: 0o600 })
	}
}

function plain(cell: FileCell, column: ShownColumn): null | string | number | boolean {
	if (!(cell instanceof Date)) return cell
	return formatOf(column) === 'date and time' ? cell.toISOString() : cell.toISOString().slice(0, 10)
}

function makeSqlite({ name, columns }: FileHead, path: string): Making {
	const db = new Database(path)
	// Nobody else reads it before it is whole.
	db.pragma('journal_mode = OFF')
	db.pragma('synchronous = OFF')
	const names = columns.map((column) => quoteName(column.name).text)
	db.exec(`CREATE TABLE ${quoteName(name).text} (${names.join(', ')})`)
	const insert = db.prepare(`INSERT INTO ${quoteName(name).text} VALUES (${names.map(() => '?').join(', ')})`)
	const values = (row: WireRow) =>
		columns.map((column) => {
			const value = plain(toFileCell(column, row.cells[cellKey(column.id)]), column)
			return typeof value === 'boolean' ? Number(value) : value
		})
	return {
		async add(rows) {
			db.transaction(() => {
				for (const row of rows) insert.run(values(row))
			})()
		},
		async end() {
			db.close()
		}
	}
}
