/** Starts once for a file that was brought into a table that is there, however many rows it changed. */
import { z } from 'zod'
import { mistake, TABLE_GONE } from '../document/findings.ts'
import { number } from '../document/parts.ts'
import { ACTS_AS } from './acts-as.ts'
import type { StartEntry } from './step-entry.ts'

export const fileStartSchema = z.object({
	kind: z.literal('file'),
	/** No row of it is at hand: it is of all that came. */
	into: number
})
export type FileStart = z.infer<typeof fileStartSchema>

export const fileStart: StartEntry<FileStart> = {
	sentence: {
		kind: {
			kind: 'file',
			about: 'Starts once for a file that was brought in; here.added, here.changed and here.removed say how many rows',
			parts: ['When a file was brought into ', { key: 'start.into', type: 'table', title: 'a table' }, ACTS_AS]
		},
		blank: { start: { kind: 'file', into: null } }
	},
	offer: 'when a file was brought in',
	isPressed: false,
	holds: {
		file: { type: 'text' },
		added: { type: 'number' },
		changed: { type: 'number' },
		removed: { type: 'number' }
	},
	takes: 'nothing',
	begin: (table) => ({ kind: 'file', into: table }),
	check: ({ into }, _table, catalogue) => (catalogue.tables.has(into) ? [] : mistake(TABLE_GONE))
}
