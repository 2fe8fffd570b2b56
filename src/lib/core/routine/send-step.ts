import { z } from 'zod'
import { checkPerson } from '../document/check-person.ts'
import { mistake } from '../document/findings.ts'
import { formula, id, words } from '../document/parts.ts'
import { parseMessage } from './message-text.ts'
import { PLAIN_STEP, scopeAt, type StepEntry } from './step-entry.ts'

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
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'send',
			about: 'Sends a message to the person that a formula names',
			parts: [
				'Send ',
				{ key: 'to', type: 'person', me: false, title: 'a formula that names a person' },
				' the message ',
				{ key: 'subject', type: 'subject', me: false, title: 'its subject' },
				', saying ',
				{ key: 'body', type: 'message', me: false, title: 'its words' }
			]
		},
		blank: { kind: 'send', to: '', subject: '', body: '' }
	},
	needsRow: false,
	check({ to, subject, body }, around) {
		const scope = scopeAt(around, false)
		const issues = [subject, body].flatMap((text) => parseMessage(text, scope).issues)
		return [...checkPerson(to, scope), ...issues.flatMap(({ message }) => mistake(message))]
	}
}
