/** Starts so many days before or after a date in a row, or on it. */
import { z } from 'zod'
import { mistake, TABLE_GONE } from '../document/findings.ts'
import { formula, number, words } from '../document/parts.ts'
import { checkCondition } from '../formula/check/check.ts'
import { columnType } from '../formula/check/column-type.ts'
import { findColumn } from '../model/table.ts'
import { minutesOf } from '../schedule/time-of-day.ts'
import { SIDES } from '../sentence/slots/all.ts'
import { ACTS_AS } from './acts-as.ts'
import { PLAIN_START, type StartEntry } from './step-entry.ts'

export const dueStartSchema = z.object({
	kind: z.literal('due'),
	table: number,
	many: z.number().int().min(0).max(3_660),
	side: z.enum(SIDES),
	column: number,
	/** `08:00` */
	at: words,
	where: formula
})
export type DueStart = z.infer<typeof dueStartSchema>

export const dueStart: StartEntry<DueStart> = {
	sentence: {
		kind: {
			kind: 'due',
			about: 'Starts so many days before or after a date of a row; nought days is the day itself',
			tableKey: 'start.table',
			parts: [
				'When it is ',
				{ key: 'start.many', type: 'days', title: 'how many days' },
				' days ',
				{ key: 'start.side', type: 'side', title: 'Before or after' },
				' ',
				{ key: 'start.column', type: 'column', title: 'a date' },
				' of a row of ',
				{ key: 'start.table', type: 'table', title: 'a table' },
				', at ',
				{ key: 'start.at', type: 'time of day', title: 'When' },
				{
					key: 'start.where',
					type: 'condition',
					me: false,
					title: 'Which rows',
					before: ', where ',
					clause: 'only where…'
				},
				ACTS_AS
			]
		},
		blank: { start: { kind: 'due', table: null, many: 3, side: 'before', column: null, at: '08:00', where: '' } }
	},
	...PLAIN_START,
	offer: 'before or after a date',
	isPressed: false,
	begin: (table) => ({ kind: 'due', table, many: 3, side: 'before', column: 0, at: '08:00', where: '' }),
	check({ column: id, at, where }, table, catalogue) {
		if (!table) return mistake(TABLE_GONE)
		const column = findColumn(table, id)
		const kind = column && columnType(catalogue, column).kind
		const { issues } =
			where.trim() === '' ? { issues: [] } : checkCondition(where, { catalogue, rows: [table], me: false })
		return [
			...(kind === 'date' || kind === 'datetime' ? [] : mistake('Choose the date that it goes by.')),
			...(minutesOf(at) === undefined ? mistake(`"${at}" is no time of day. Write it like 08:00.`) : []),
			...issues.flatMap(({ message }) => mistake(message))
		]
	}
}
