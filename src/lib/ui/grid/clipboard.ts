/** Blocks of cells as spreadsheets exchange them: tabs between cells, quotes round what holds a tab or a line break. */
import Papa from 'papaparse'
import { figuresOf } from '$lib/core/table/show-value.ts'
import { isFileCell, isReferenceCell, type WireCell } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { showCell } from '$lib/core/requests/show-cell.ts'

export function toClipboard(cells: readonly (readonly string[])[]): string {
	// The library changes nothing of it, though its type would let it.
	return Papa.unparse(cells as string[][], { delimiter: '\t', newline: '\r\n' })
}

export function fromClipboard(text: string): string[][] {
	// Spreadsheets close the last row with a line break as well.
	const trimmed = text.replace(/\r?\n$/, '')
	if (trimmed === '') return [['']]
	return Papa.parse<string[]>(trimmed, { delimiter: '\t' }).data
}

/** A cell as another program reads it: plain digits with the decimal sign of the workspace, dates as ISO 8601, the rest as it is shown. */
export function plainCell(column: ShownColumn, cell: WireCell | undefined): string {
	if (cell === undefined || cell === null) return ''
	if (isReferenceCell(cell)) return cell.label
	if (isFileCell(cell)) return cell.file.name
	if (typeof cell === 'object') return ''
	if (typeof cell === 'number' && column.type !== 'time' && column.type !== 'duration')
		return figuresOf(cell, column.writing)
	return column.type === 'date' || column.shows === 'date' ? String(cell) : showCell(column, cell)
}
