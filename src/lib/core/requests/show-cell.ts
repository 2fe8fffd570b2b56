/** The text of a cell as people see it, from what travelled. Pure display: nothing is decided here. */
import { showMoney, showNumber, showValue, showYesNo } from '../table/show-value.ts'
import { showDate, showDuration, showInstant } from '../table/show-times.ts'
import type { Column } from '../model/table.ts'
import { isErrorCell, isFileCell, isHiddenCell, isReferenceCell, type WireCell } from '../query/wire.ts'
import type { ShownColumn } from './shown-column.ts'

/** A cell as its reader sees it, in words and figures. */
export function showCell(column: ShownColumn, cell: WireCell | undefined): string {
	if (cell === undefined || cell === null) return ''
	if (isReferenceCell(cell)) return cell.label === '' ? '(no name)' : cell.label
	if (isHiddenCell(cell)) return 'kept from you'
	if (isErrorCell(cell)) return cell.error
	if (isFileCell(cell)) return cell.file.name
	if (typeof cell === 'object') return ''
	return column.type === 'computed' ? showComputed(column, cell) : showValue(cell, column)
}

function showComputed(column: ShownColumn, cell: string | number | boolean): string {
	const { unit, places, writing } = column
	if (column.shows === 'date') return showDate(String(cell), writing)
	if (column.shows === 'datetime') return showInstant(String(cell), column.timeZone, writing)
	if (column.shows === 'duration') return showDuration(Number(cell))
	if (column.shows === 'yesno') return showYesNo(cell)
	if (typeof cell !== 'number') return String(cell)
	if (column.isMoney) return showMoney(cell, unit, writing)
	const text = showNumber(places === undefined ? Number(cell.toFixed(4)) : cell, { places, writing })
	return unit ? `${text} ${unit}` : text
}

/** What was sent of a column is enough for the types' own rules. */
export function asColumn(column: ShownColumn): Column {
	const { otherwise: _otherwise, formula: _formula, ...plain } = column
	// Showing asks for no more of a column than this.
	return plain as Column
}

/** Also what a formula gives as a date. */
export function isDate(column: ShownColumn): boolean {
	return column.type === 'date' || column.shows === 'date'
}

/** Whole days from today (the browser's) to an ISO date. */
export function daysUntil(iso: string, today = new Date()): number {
	const start = Date.UTC(today.getFullYear(), today.getMonth(), today.getDate())
	return Math.round((Date.parse(`${iso}T00:00:00Z`) - start) / 86_400_000)
}
