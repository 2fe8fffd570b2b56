/** XLSX, written row by row: a sheet of a million takes no more memory than one of a thousand. */
import ExcelJS from 'exceljs'
import { cellKey } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { formatOf, headingOf, sheetName, toSheetCell, type FileCell, type FileHead, type Making } from './file-cell.ts'

export function makeXlsx({ name, columns }: FileHead, path: string): Making {
	const book = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: path, useStyles: true, useSharedStrings: false })
	const sheet = book.addWorksheet(sheetName(name), { views: [{ state: 'frozen', ySplit: 1 }] })
	sheet.columns = columns.map((column) => {
		const numFmt = numberFormat(column)
		return {
			header: headingOf(column),
			width: Math.min(40, Math.max(10, column.name.length + 3)),
			style: numFmt === undefined ? {} : { numFmt }
		}
	})
	const heading = sheet.getRow(1)
	heading.font = { bold: true }
	heading.commit()
	return {
		async add(rows) {
			for (const row of rows)
				sheet.addRow(columns.map((column) => toXlsxCell(toSheetCell(column, row.cells[cellKey(column.id)])))).commit()
		},
		async end() {
			sheet.commit()
			await book.commit()
		}
	}
}

/** Before this day a sheet's calendar has one that never was, 29 February 1900, and programs differ by a day. */
const FIRST_SURE_DAY = Date.UTC(1900, 2, 1)

/** A day that a sheet cannot hold stands there as text. */
function toXlsxCell(value: FileCell): FileCell {
	if (!(value instanceof Date) || value.getTime() >= FIRST_SURE_DAY) return value
	return value.toISOString().slice(0, 19).replace('T00:00:00', '').replace('T', ' ')
}

function numberFormat(column: ShownColumn): string | undefined {
	const { unit, places } = column
	switch (formatOf(column)) {
		case 'date':
			return 'yyyy-mm-dd'
		case 'date and time':
			return 'yyyy-mm-dd hh:mm:ss'
		case 'time':
			return 'hh:mm:ss'
		case 'duration':
			return '[h]:mm:ss'
		case 'percent':
			return `${withPlaces('0', places ?? 2)}%`
		case 'money':
			return unit === undefined ? '#,##0.00' : `[$${unit}]#,##0.00`
		case 'whole number':
			return '0'
		case 'decimal':
			return places === undefined ? undefined : withPlaces('0', places)
		case 'text':
		case 'code':
			// Somebody who types 007 there keeps it.
			return '@'
		default:
			return undefined
	}
}

function withPlaces(digits: string, places: number): string {
	return places === 0 ? digits : `${digits}.${'0'.repeat(places)}`
}
