import { z } from 'zod'
import { checkPerson } from '../document/check-person.ts'
import { mistake } from '../document/findings.ts'
import { formula, id, words } from '../document/parts.ts'
import { mapPieces, parseMessage } from './message-text.ts'
import type { StepEntry } from './step-entry.ts'

export const sendStepSchema = z.object({
	id,
	kind: z.literal('send'),
	/** A formula that names a person. */
	to: formula,
	/** Text with formulas in braces, worked out as the recipient may see them. */
	subject: words,
	body: z.string().max(5_000)
})
export type SendStep = z.infer<typeof sendStepSchema>

export const sendStep: StepEntry<SendStep> = {
	sentence: {
		kind: {
			kind: 'send',
			about: 'Sends a message to the person that a formula names',
			parts: [
				'Send ',
				{ key: 'to', type: 'person', me: false, title: 'a formula that names a person' },
				' the message ',
				{ key: 'subject', type: 'text', title: 'its subject' },
				', saying ',
				{ key: 'body', type: 'long text', title: 'its words' }
			]
		},
		blank: { kind: 'send', to: '', subject: '', body: '' }
	},
	actsAsPresser: false,
	mapFormulas(step, map) {
		const own = (text: string) => map(text, false)
		return { ...step, to: own(step.to), subject: mapPieces(step.subject, own), body: mapPieces(step.body, own) }
	},
	written: () => [],
	mapColumns: (step) => step,
	check({ to, subject, body }, table, catalogue) {
		const issues = [subject, body].flatMap((text) => parseMessage(text, catalogue, table).issues)
		return [...checkPerson(to, table, catalogue), ...issues.flatMap(({ message }) => mistake(message))]
	}
}
