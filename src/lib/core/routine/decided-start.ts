/** Starts with a decision: when a row was approved or declined in a sign-off of the same app. */
import { z } from 'zod'
import { mistake, TABLE_GONE } from '../document/findings.ts'
import { formula, number } from '../document/parts.ts'
import { checkCondition } from '../formula/check/check.ts'
import { DECISIONS } from '../sentence/slots/all.ts'
import { ACTS_AS } from './acts-as.ts'
import { PLAIN_START, type StartEntry } from './step-entry.ts'

export const decidedStartSchema = z.object({
	kind: z.literal('decided'),
	table: number,
	as: z.enum(DECISIONS),
	where: formula
})
export type DecidedStart = z.infer<typeof decidedStartSchema>

export const decidedStart: StartEntry<DecidedStart> = {
	sentence: {
		kind: {
			kind: 'decided',
			about: 'Starts when a row was approved or declined in a sign-off of this app',
			tableKey: 'start.table',
			parts: [
				'When a row of ',
				{ key: 'start.table', type: 'table', title: 'a table' },
				' was ',
				{ key: 'start.as', type: 'decision', title: 'What was decided' },
				' in a sign-off ',
				{
					...{ key: 'start.where', type: 'condition', me: false, title: 'Which rows' },
					...{ before: 'and ', empty: 'whatever it says' }
				},
				ACTS_AS
			]
		},
		blank: { start: { kind: 'decided', table: null, as: 'approved', where: '' } }
	},
	...PLAIN_START,
	offer: 'when a sign-off is decided',
	isPressed: false,
	begin: (table) => ({ kind: 'decided', table, as: 'approved', where: '' }),
	check({ where }, table, catalogue) {
		if (!table) return mistake(TABLE_GONE)
		if (where.trim() === '') return []
		const { issues } = checkCondition(where, { catalogue, rows: [table], me: false })
		return issues.flatMap(({ message }) => mistake(message))
	}
}
