/** What a cell is in a file, whatever the format: what its reader sees of it, as the type that it has. */
import { isFileCell, isReferenceCell, type WireCell, type WireRow } from '$lib/core/query/wire.ts'
import { wallClock } from '$lib/core/schedule/zone.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { formatOf } from './value-format.ts'

export interface FileHead {
	readonly name: string
	readonly columns: readonly ShownColumn[]
}

/** A file that is being made: rows are added page by page, then it is ended. */
export interface Making {
	add(rows: readonly WireRow[]): Promise<void>
	end(): Promise<void>
}

export type FileCell = null | string | number | boolean | Date

/** Dates as dates, references by their label, files by their name, errors and what is unseen as nothing. */
export function toFileCell(column: ShownColumn, cell: WireCell | undefined): FileCell {
	if (cell === undefined || cell === null) return null
	if (isReferenceCell(cell)) return cell.label
	if (isFileCell(cell)) return cell.file.name
	if (typeof cell === 'object') return null
	const format = formatOf(column)
	return format === 'date' || format === 'date and time' ? new Date(String(cell)) : cell
}

/** As a spreadsheet keeps it: an instant as the clock on the wall shows it, since a sheet knows no time zones. */
export function toSheetCell(column: ShownColumn, cell: WireCell | undefined): FileCell {
	const value = toFileCell(column, cell)
	if (!(value instanceof Date) || formatOf(column) !== 'date and time') return value
	return new Date(wallClock(value.getTime(), column.timeZone ?? 'UTC'))
}

/** `Depth (m)`: a unit that no format carries stands in the heading, and is found there when the file comes in again. */
export function headingOf(column: ShownColumn): string {
	return column.unit && formatOf(column) !== 'money' ? `${column.name} (${column.unit})` : column.name
}

/** Names of sheets are at most 31 characters, without these signs. */
export function sheetName(name: string): string {
	return name.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31)
}

const DAY_SECONDS = 86_400

/** `PT26H15M`, a duration of ISO 8601. @param days may be negative */
export function isoDuration(days: number): string {
	const all = Math.round(Math.abs(days) * DAY_SECONDS)
	const parts = [
		[Math.floor(all / 3600), 'H'],
		[Math.floor(all / 60) % 60, 'M'],
		[all % 60, 'S']
	] as const
	const written = parts.filter(([count]) => count > 0).map(([count, unit]) => `${count}${unit}`)
	return `${days < 0 && all > 0 ? '-' : ''}PT${written.join('') || '0S'}`
}

/** `14:30:00`, a time of day of ISO 8601. @param part of a day */
export function isoTime(part: number): string {
	return new Date(Math.round(part * DAY_SECONDS) * 1000).toISOString().slice(11, 19)
}

/** As formats without dates keep it: everything of time as ISO 8601. */
export function toPlainCell(column: ShownColumn, cell: WireCell | undefined): null | string | number | boolean {
	const value = toFileCell(column, cell)
	const format = formatOf(column)
	if (value instanceof Date) return format === 'date and time' ? value.toISOString() : value.toISOString().slice(0, 10)
	if (typeof value !== 'number') return value
	if (format === 'time') return isoTime(value)
	return format === 'duration' ? isoDuration(value) : value
}
