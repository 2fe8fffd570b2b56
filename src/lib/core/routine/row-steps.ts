/** Steps that take the row at hand away, and that say something to whoever pressed. */
import { z } from 'zod'
import { mistake } from '../document/findings.ts'
import { id } from '../document/parts.ts'
import { checkWords } from './check-words.ts'
import { PLAIN_STEP, type StepEntry } from './step-entry.ts'

export const removeStepSchema = z.object({ id, kind: z.literal('remove') })
export type RemoveStep = z.infer<typeof removeStepSchema>

export const removeStep: StepEntry<RemoveStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: { kind: 'remove', about: 'Takes the row away; it lies in the bin', parts: ['Remove the row'] },
		blank: { kind: 'remove' }
	},
	needsActor: true,
	writes: (_step, at) => (at === undefined ? [] : [{ table: at, verb: 'remove', columns: [] }]),
	check: () => []
}

export const sayStepSchema = z.object({ id, kind: z.literal('say'), words: z.string().max(500) })
export type SayStep = z.infer<typeof sayStepSchema>

export const sayStep: StepEntry<SayStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'say',
			about: 'Shows words to whoever pressed, as they may see the row',
			parts: ['Say to whoever pressed ', { key: 'words', type: 'subject', title: 'the words' }]
		},
		blank: { kind: 'say', words: '' }
	},
	needsPresser: true,
	check: ({ words }, around) =>
		words.trim() === ''
			? mistake('It says nothing yet.')
			: around.hasMe
				? checkWords([words], { ...around, given: around.here })
				: checkWords([words], around)
}
