import { z } from 'zod'
import { mistake, TABLE_GONE } from '../document/findings.ts'
import { formula, number } from '../document/parts.ts'
import { checkCondition } from '../formula/check/check.ts'
import { NOT_STARTING, WHEN } from '../sentence/slots/all.ts'
import { ACTS_AS } from './acts-as.ts'
import { NOT_OF_FILES } from './not-of-files.ts'
import { PLAIN_START, type StartEntry } from './step-entry.ts'

export const rowsStartSchema = z.object({
	kind: z.literal('rows'),
	table: number,
	when: z.enum(WHEN),
	where: formula,
	but: z.enum(NOT_STARTING).nullish()
})
export type RowsStart = z.infer<typeof rowsStartSchema>

export const rowsStart: StartEntry<RowsStart> = {
	sentence: {
		kind: {
			kind: 'rows',
			about: 'Starts when a row is added, changed or removed',
			tableKey: 'start.table',
			parts: [
				'When a row of ',
				{ key: 'start.table', type: 'table', title: 'a table' },
				' is ',
				{ key: 'start.when', type: 'when', title: 'added, changed or removed' },
				' ',
				{
					key: 'start.where',
					type: 'condition',
					me: false,
					title: 'Which rows',
					before: 'and ',
					empty: 'whatever it says'
				},
				NOT_OF_FILES,
				ACTS_AS
			]
		},
		blank: { start: { kind: 'rows', table: null, when: 'added', where: '' } }
	},
	...PLAIN_START,
	offer: 'when a row is added, changed or removed',
	isPressed: false,
	begin: (table) => ({ kind: 'rows', table, when: 'added', where: '' }),
	check({ where }, table, catalogue) {
		if (!table) return mistake(TABLE_GONE)
		if (where.trim() === '') return []
		const { issues } = checkCondition(where, { catalogue, rows: [table], me: false })
		return issues.flatMap(({ message }) => mistake(message))
	}
}
