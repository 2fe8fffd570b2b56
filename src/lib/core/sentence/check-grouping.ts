/** By what rows are told apart where they are counted: a column, of dates in steps, of numbers in bands. */
import { z } from 'zod'
import { columnType } from '../formula/check/column-type.ts'
import { findColumn, type Catalogue, type Column, type Table } from '../model/table.ts'
import { PERIODS } from '../query/measure.ts'
import { isBands, type Grouping } from './slots/measure.ts'
import { mistake, type Found } from '../document/findings.ts'
import { number } from '../document/parts.ts'

export const groupingSchema = z.object({
	column: number,
	/** Of dates in which steps; of numbers in which bands: as they suit, or of one width. */
	step: z.union([z.enum(PERIODS), z.literal('bands'), z.number().positive().max(1e15)]).nullable()
})

export function checkGrouping(
	{ column: id, step }: Grouping,
	table: Table,
	{ catalogue }: { readonly catalogue: Catalogue }
): Found[] {
	const column = findColumn(table, id)
	if (!column) return mistake('A column that it goes by is gone.')
	const { kind } = columnType(catalogue, column)
	const isDate = kind === 'date' || kind === 'datetime'
	const isNumber = kind === 'number'
	if (isDate && (step === null || isBands(step)))
		return mistake(`${column.name} holds dates. Say in which steps: ${column.name} in months.`)
	if (isNumber && !isBands(step))
		return mistake(`${column.name} holds numbers. Take them together: ${column.name} in bands, or in bands of 5.`)
	if (!isDate && !isNumber && step !== null)
		return mistake(
			`${column.name} holds no ${isBands(step) ? 'numbers' : 'dates'}, and is taken in no ${isBands(step) ? 'bands' : step}.`
		)
	if (kind === 'datetime' && column.type === 'computed')
		return mistake(`${column.name} is an instant that is worked out. Go by a column of dates, or of dates and times.`)
	return isDate || isNumber || isToldApart(column, kind)
		? []
		: mistake(`${column.name} tells no few rows apart. Go by a choice, a reference, a short text or a date.`)
}

function isToldApart({ type }: Column, kind: string): boolean {
	return ['choice', 'yes/no', 'reference', 'text', 'code'].includes(type) || kind === 'text' || kind === 'yesno'
}
