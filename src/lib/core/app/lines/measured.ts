/** What lines that measure many rows have in common: their condition, their measure, and what can be wrong with either. */
import { z } from 'zod'
import { columnType } from '../../formula/check/column-type.ts'
import { checkCondition } from '../../formula/check/check.ts'
import { findColumn, type Table } from '../../model/table.ts'
import { mistake, type Found } from '../../document/findings.ts'
import { formula, number } from '../../document/parts.ts'
import { MEASURES } from '../../query/measure.ts'
import type { Part, Slot } from '../../sentence/types.ts'
import type { Measure } from '../../sentence/slots/measure.ts'
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

function checkMeasure({ of, column: id }: Measure, table: Table, { catalogue }: Around): Found[] {
	if (of === 'count') return []
	const column = id === null ? undefined : findColumn(table, id)
	if (!column) return mistake(`The column of which it is the ${of} is gone.`)
	return columnType(catalogue, column).kind === 'number'
		? []
		: mistake(`${column.name} is no column of numbers, and has no ${of}.`)
}
