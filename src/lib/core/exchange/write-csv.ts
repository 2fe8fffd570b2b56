/** Writes CSV as RFC 4180 has it: CRLF between records, quotes where a value needs them, quotes inside doubled. */
import { numberText, shiftPoint } from '../number/arithmetic.ts'
import { showYesNo } from '../table/show-value.ts'
import { showDuration, showTime } from '../table/show-times.ts'
import { isErrorCell, isFileCell, isHiddenCell, isReferenceCell, type WireCell } from '../query/wire.ts'
import type { Column } from '../model/table.ts'

/** One record of a file, with its line end. */
export function csvRecord(values: readonly string[]): string {
	return `${values.map(csvValue).join(',')}\r\n`
}

function csvValue(value: string): string {
	return /[",\r\n]/.test(value) ? `"${value.replaceAll('"', '""')}"` : value
}

/** A cell as a file holds it: numbers plain, shares with their sign, dates as ISO 8601, a reference by its label, a file by its name; what is not seen is nothing. */
export function exportText(column: Pick<Column, 'type'>, cell: WireCell | undefined): string {
	if (cell === undefined || cell === null || isHiddenCell(cell)) return ''
	if (isReferenceCell(cell)) return cell.label
	if (isErrorCell(cell)) return cell.error
	if (isFileCell(cell)) return cell.file.name
	if (typeof cell === 'boolean') return showYesNo(cell)
	if (typeof cell === 'number' && column.type === 'percent') return `${numberText(shiftPoint(cell, 2))}%`
	// As any program reads them, however the workspace writes them for people.
	if (typeof cell === 'number' && column.type === 'time') return showTime(cell)
	if (typeof cell === 'number' && column.type === 'duration') return showDuration(cell)
	return String(cell)
}

const NUMBER = /^[+-]?\d+(\.\d+)?([eE][+-]?\d+)?%?$/

/**
 * A text that a spreadsheet would run as a formula, made plain by a quote before it (OWASP, "CSV Injection"). Numbers stay.
 */
export function defuse(text: string): string {
	return /^[=+\-@\t\r]/.test(text) && !NUMBER.test(text) ? `'${text}` : text
}
