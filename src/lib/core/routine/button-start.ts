import { z } from 'zod'
import { number } from '../document/parts.ts'
import { ACTS_AS } from './acts-as.ts'
import { PLAIN_START, type StartEntry } from './step-entry.ts'

export const buttonStartSchema = z.object({ kind: z.literal('button'), table: number })
export type ButtonStart = z.infer<typeof buttonStartSchema>

export const buttonStart: StartEntry<ButtonStart> = {
	sentence: {
		kind: {
			kind: 'button',
			about: 'Starts when somebody presses its button on a row',
			tableKey: 'start.table',
			parts: [
				'When its button is pressed on a row of ',
				{ key: 'start.table', type: 'table', title: 'a table' },
				ACTS_AS
			]
		},
		blank: { start: { kind: 'button', table: null } }
	},
	...PLAIN_START,
	offer: 'at a button',
	isPressed: true,
	begin: (table) => ({ kind: 'button', table }),
	check: () => []
}
