/** XLSX, written row by row: a sheet of a million takes no more memory than one of a thousand. */
import ExcelJS from 'exceljs'
import { cellKey } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { headingOf, sheetName, toSheetCell, type FileCell, type FileHead, type Making } from './file-cell.ts'
import { formatOf, type ValueFormat } from './value-format.ts'

export function makeXlsx({ name, columns }: FileHead, path: string): Making {
	const book = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: path, useStyles: true, useSharedStrings: false })
	const sheet = book.addWorksheet(sheetName(name), { views: [{ state: 'frozen', ySplit: 1 }] })
	sheet.columns = columns.map((column) => {
		const numFmt = NUMBER_FORMATS[formatOf(column)](column)
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

type NumberFormat = (column: ShownColumn) => string | undefined

const asItIs: NumberFormat = () => undefined

/** The codes of ECMA-376, part 1, 18.8.31. */
const NUMBER_FORMATS: Readonly<Record<ValueFormat, NumberFormat>> = {
	text: asItIs,
	'text as typed': () => '@',
	'yes/no': asItIs,
	'whole number': () => '0',
	decimal: ({ places }) => (places === undefined ? undefined : withPlaces('0', places)),
	number: asItIs,
	money: ({ unit }) => (unit === undefined ? '#,##0.00' : `[$${unit}]#,##0.00`),
	percent: ({ places }) => `${withPlaces('0', places ?? 2)}%`,
	date: () => 'yyyy-mm-dd',
	'date and time': () => 'yyyy-mm-dd hh:mm:ss',
	time: () => 'hh:mm:ss',
	duration: () => '[h]:mm:ss'
}

function withPlaces(digits: string, places: number): string {
	return places === 0 ? digits : `${digits}.${'0'.repeat(places)}`
}
