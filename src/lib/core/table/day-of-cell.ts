import type { Column } from '../model/table.ts'
import { localDate } from '../schedule/zone.ts'

/** The day on which a cell of a date, or of a date and time, lies by the clocks of a zone: ISO 8601; undefined for any other. */
export function dayOfCell(cell: unknown, { type }: Pick<Column, 'type'>, zone: string): string | undefined {
	if (typeof cell !== 'string') return undefined
	return type === 'date and time' ? localDate(cell, zone) : cell
}
