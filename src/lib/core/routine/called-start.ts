/** Starts where another routine of the same app runs it, on the row that is at hand there. */
import { z } from 'zod'
import { mistake, TABLE_GONE } from '../document/findings.ts'
import { number } from '../document/parts.ts'
import { ACTS_AS } from './acts-as.ts'
import type { StartEntry } from './step-entry.ts'

export const calledStartSchema = z.object({ kind: z.literal('called'), table: number })
export type CalledStart = z.infer<typeof calledStartSchema>

export const calledStart: StartEntry<CalledStart> = {
	sentence: {
		kind: {
			kind: 'called',
			about: 'Starts when another routine runs it: for steps that several routines have in common',
			tableKey: 'start.table',
			parts: [
				'When another routine runs it on a row of ',
				{ key: 'start.table', type: 'table', title: 'a table' },
				ACTS_AS
			]
		},
		blank: { start: { kind: 'called', table: null } }
	},
	holds: {},
	takes: 'from a routine',
	offer: 'when another routine runs it',
	isPressed: false,
	begin: (table) => ({ kind: 'called', table }),
	check: (_start, table) => (table ? [] : mistake(TABLE_GONE))
}
