/** What lines that measure many rows have in common: their condition, their measure, and what can be wrong with either. */
import { z } from 'zod'
import { columnType } from '../../formula/check/column-type.ts'
import { checkCondition } from '../../formula/check/check.ts'
import { findColumn, type Column, type Table } from '../../model/table.ts'
import { mistake, type Found } from '../../document/findings.ts'
import { formula, number } from '../../document/parts.ts'
import { MEASURES, PERIODS } from '../../query/measure.ts'
import type { Part, Slot } from '../../sentence/types.ts'
import { isBands, type Grouping, type Measure } from '../../sentence/slots/measure.ts'
import type { Around } from './entry.ts'
import { ONCE_CHOSEN, WHICH_ROWS } from './parts.ts'

export const measuredParts = {
	table: number,
	measure: z.object({ of: z.enum(MEASURES), column: number.nullable() }),
	where: formula,
	/** What must hold besides, once every value is chosen that it reads as `here.NAME`. */
	once: formula.default('')
}

/** What is measured, of which rows: as every sentence of a measure begins. */
export const MEASURED_FROM: readonly Part[] = [
	{ key: 'measure', type: 'measure', title: 'What is made of the rows' },
	' from ',
	{ key: 'table', type: 'table', title: 'a table' },
	' ',
	WHICH_ROWS,
	ONCE_CHOSEN
]

/** What stands over a chart; what it shows, in words, where nobody says. */
export const TITLE_OVER: Slot = {
	...{ key: 'title', type: 'text', title: 'What stands over it' },
	...{ before: '; over it stands ', clause: 'over it stands…' }
}

/** What a row behind a number opens. */
export const ROW_OPENS: Slot = {
	...{ key: 'opens', type: 'screen', title: 'A screen' },
	...{ before: '; a row of it opens ', clause: 'a row of it opens…' }
}

export const groupingSchema = z.object({
	column: number,
	/** Of dates in which steps; of numbers in which bands: as they suit, or of one width. */
	step: z.union([z.enum(PERIODS), z.literal('bands'), z.number().positive().max(1e15)]).nullable()
})

export interface MeasuredLine {
	readonly table: number
	readonly measure: Measure
	readonly where: string
	readonly once: string
}

export function checkMeasured({ measure, where, once }: MeasuredLine, table: Table, around: Around): Found[] {
	return [
		...checkMeasure(measure, table, around),
		...[where, once].flatMap((condition) => checkRows(condition, table, around))
	]
}

export function checkRows(condition: string, table: Table, { catalogue, here }: Around): Found[] {
	if (condition.trim() === '') return []
	return checkCondition(condition, { catalogue, rows: [table], me: true, here }).issues.flatMap(({ message }) =>
		mistake(message)
	)
}

export function checkGrouping({ column: id, step }: Grouping, table: Table, { catalogue }: Around): Found[] {
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

function checkMeasure({ of, column: id }: Measure, table: Table, { catalogue }: Around): Found[] {
	if (of === 'count') return []
	const column = id === null ? undefined : findColumn(table, id)
	if (!column) return mistake(`The column of which it is the ${of} is gone.`)
	return columnType(catalogue, column).kind === 'number'
		? []
		: mistake(`${column.name} is no column of numbers, and has no ${of}.`)
}
