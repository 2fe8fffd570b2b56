import { z } from 'zod'
import { checkPerson } from '../document/check-person.ts'
import { mistake } from '../document/findings.ts'
import { formula, id, words } from '../document/parts.ts'
import { checkWords } from './check-words.ts'
import { OUTSIDE } from '../sentence/slots/all.ts'
import { checkOutside, TO_OUTSIDE } from './to-outside.ts'
import { PLAIN_STEP, scopeAt, type StepEntry } from './step-entry.ts'

export const sendStepSchema = z.object({
	id,
	kind: z.literal('send'),
	/** A formula that names a person. */
	to: formula,
	/** Text with formulas in braces, worked out as the recipient may see them; `me` is the recipient. */
	subject: words,
	body: z.string().max(5_000),
	/** The screen of the app on which its recipient finds the row. */
	opens: id.nullish(),
	outside: z.enum(OUTSIDE).nullish()
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
				{ key: 'to', type: 'person', title: 'a formula that names a person' },
				' the message ',
				{ key: 'subject', type: 'subject', title: 'its subject' },
				', saying ',
				{ key: 'body', type: 'message', title: 'its words' },
				{
					...{ key: 'opens', type: 'screen', title: 'The screen that its link opens on the row' },
					...{ before: '; it opens ', clause: 'it opens a screen…' }
				},
				TO_OUTSIDE
			]
		},
		blank: { kind: 'send', to: '', subject: '', body: '' }
	},
	needsRow: false,
	check(step, around) {
		const { to, subject, body, opens } = step
		const screen = opens ?? undefined
		return [
			...checkPerson(to, scopeAt(around, around.hasMe)),
			...(screen === undefined || around.hasScreen(screen) ? [] : mistake('The screen it opens is gone.')),
			...checkWords([subject, body], around),
			...checkOutside(step, around)
		]
	}
}
