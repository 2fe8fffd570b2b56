/**
 * Makes a file of an open format from rows as they travelled: XLSX and ODS with headings, types and widths, JSON
 * (RFC 8259), or an SQLite file. Runs in the importer's thread, away from everything that must answer quickly.
 */
import XLSX from '@e965/xlsx'
import Database from 'better-sqlite3'
import ExcelJS from 'exceljs'
import { writeFile } from 'node:fs/promises'
import { quoteName } from '$lib/core/query/sql.ts'
import { cellKey, isFileCell, isReferenceCell, type WireCell, type WireRow } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '../rows/describe-columns.ts'

export const FILE_FORMATS = ['xlsx', 'ods', 'json', 'sqlite'] as const
export type FileFormat = (typeof FILE_FORMATS)[number]

export interface Taken {
	readonly name: string
	readonly columns: readonly ShownColumn[]
	readonly rows: readonly WireRow[]
}

export interface FileToMake extends Taken {
	readonly format: FileFormat
	/** Where it is to lie; made by the program, never by a person. */
	readonly path: string
}

const MAKERS: Readonly<Record<FileFormat, (taken: Taken) => Promise<Uint8Array> | Uint8Array>> = {
	xlsx: makeXlsx,
	ods: makeOds,
	json: makeJson,
	sqlite: makeSqlite
}

export async function makeFile({ format, path, ...taken }: FileToMake): Promise<void> {
	await writeFile(path, await MAKERS[format](taken), { mode: 0o600 })
}

type FileCell = null | string | number | boolean | Date

/** A cell as a spreadsheet keeps it: dates as dates, references by their label, files by their name, errors and what is unseen as nothing. */
function toFileCell(column: ShownColumn, cell: WireCell | undefined): FileCell {
	if (cell === undefined || cell === null) return null
	if (isReferenceCell(cell)) return cell.label
	if (isFileCell(cell)) return cell.file.name
	if (typeof cell === 'object') return null
	const isDate = column.type === 'date' || column.shows === 'date' || column.type === 'date and time'
	return isDate ? new Date(String(cell)) : cell
}

const FORMATS: Readonly<Record<string, string>> = {
	date: 'yyyy-mm-dd',
	'date and time': 'yyyy-mm-dd hh:mm',
	money: '#,##0.00',
	percent: '0.00%',
	time: 'hh:mm',
	duration: '[h]:mm'
}

async function makeXlsx({ name, columns, rows }: Taken): Promise<Uint8Array> {
	const book = new ExcelJS.Workbook()
	const sheet = book.addWorksheet(sheetName(name), { views: [{ state: 'frozen', ySplit: 1 }] })
	sheet.columns = columns.map((column) => ({
		header: column.unit ? `${column.name} (${column.unit})` : column.name,
		width: Math.min(40, Math.max(10, column.name.length + 3)),
		style: FORMATS[formatOf(column)] ? { numFmt: FORMATS[formatOf(column)] ?? '' } : {}
	}))
	sheet.getRow(1).font = { bold: true }
	for (const row of rows) sheet.addRow(columns.map((column) => toFileCell(column, row.cells[cellKey(column.id)])))
	return new Uint8Array(await book.xlsx.writeBuffer())
}

function formatOf(column: ShownColumn): string {
	return column.type === 'computed' ? (column.shows ?? '') : column.type
}

function makeOds({ name, columns, rows }: Taken): Uint8Array {
	const cells = rows.map((row) => columns.map((column) => toFileCell(column, row.cells[cellKey(column.id)])))
	const sheet = XLSX.utils.aoa_to_sheet([columns.map((column) => column.name), ...cells], {
		cellDates: true,
		UTC: true
	})
	const book = XLSX.utils.book_new()
	XLSX.utils.book_append_sheet(book, sheet, sheetName(name))
	return new Uint8Array(XLSX.write(book, { type: 'buffer', bookType: 'ods' }) as Buffer)
}

/** Names of sheets are at most 31 characters, without these signs. */
function sheetName(name: string): string {
	return name.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31)
}

function makeJson({ columns, rows }: Taken): Uint8Array {
	const records = rows.map((row) =>
		Object.fromEntries(
			columns.map((column) => [column.name, plain(toFileCell(column, row.cells[cellKey(column.id)]), column)])
		)
	)
	return new TextEncoder().encode(`${JSON.stringify(records, null, '\t')}\n`)
}

function plain(cell: FileCell, column: ShownColumn): null | string | number | boolean {
	if (!(cell instanceof Date)) return cell
	return column.type === 'date and time' ? cell.toISOString() : cell.toISOString().slice(0, 10)
}

function makeSqlite({ name, columns, rows }: Taken): Uint8Array {
	const db = new Database(':memory:')
	const names = columns.map((column) => quoteName(column.name).text)
	db.exec(`CREATE TABLE ${quoteName(name).text} (${names.join(', ')})`)
	const insert = db.prepare(`INSERT INTO ${quoteName(name).text} VALUES (${names.map(() => '?').join(', ')})`)
	db.transaction(() => {
		for (const row of rows)
			insert.run(
				columns.map((column) => {
					const value = plain(toFileCell(column, row.cells[cellKey(column.id)]), column)
					return typeof value === 'boolean' ? Number(value) : value
				})
			)
	})()
	const bytes = new Uint8Array(db.serialize())
	db.close()
	return bytes
}
