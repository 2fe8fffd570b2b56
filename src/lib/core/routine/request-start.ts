/** Starts where another program asks for it, by a signed request; what it sends, the first lines take. */
import { z } from 'zod'
import { mistake } from '../document/findings.ts'
import { words } from '../document/parts.ts'
import { ACTS_AS } from './acts-as.ts'
import type { StartEntry } from './step-entry.ts'

export const requestStartSchema = z.object({
	kind: z.literal('request'),
	/** The name of the program, as stewards call it. */
	from: words
})
export type RequestStart = z.infer<typeof requestStartSchema>

export const requestStart: StartEntry<RequestStart> = {
	sentence: {
		kind: {
			kind: 'request',
			about: 'Starts when another program asks for it by a signed request, with values that the first lines take',
			parts: [
				'When the program ',
				{ key: 'start.from', type: 'program', title: 'its name, as stewards call it' },
				' asks for it',
				ACTS_AS
			]
		},
		blank: { start: { kind: 'request', from: '' } }
	},
	offer: 'when another program asks for it',
	isPressed: false,
	holds: {},
	takes: 'from outside',
	begin: () => ({ kind: 'request', from: '' }),
	check: ({ from }) =>
		from.trim() === '' ? mistake('Say which program: one that a steward has put on the page of the workspace.') : []
}
