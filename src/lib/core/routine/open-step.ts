/** Opens a screen of the app for whoever pressed: on the row at hand, or on the one that was added last. */
import { z } from 'zod'
import { mistake, SCREEN_GONE } from '../document/findings.ts'
import { id } from '../document/parts.ts'
import { OPENED_ROWS } from '../sentence/slots/all.ts'
import { PLAIN_STEP, type StepEntry } from './step-entry.ts'

export const openStepSchema = z.object({
	...{ id, kind: z.literal('open'), screen: z.string().max(40) },
	on: z.enum(OPENED_ROWS)
})
export type OpenStep = z.infer<typeof openStepSchema>

export const openStep: StepEntry<OpenStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'open',
			about: 'Opens a screen for whoever pressed, on the row or on one that was just added',
			parts: [
				'Open for whoever pressed ',
				{ key: 'screen', type: 'screen', title: 'A screen' },
				' on ',
				{ key: 'on', type: 'opened row', title: 'On which row' }
			]
		},
		blank: { kind: 'open', screen: '', on: 'this row' }
	},
	needsPresser: true,
	check: ({ screen }, { hasScreen }) => {
		if (screen === '') return mistake('Say which screen it opens.')
		return hasScreen(screen) ? [] : mistake(SCREEN_GONE)
	}
}
