/** Asks those who may that somebody be given a role: a routine gives none by itself. */
import { z } from 'zod'
import { checkPerson } from '../document/check-person.ts'
import { mistake } from '../document/findings.ts'
import { formula, id, number, words } from '../document/parts.ts'
import { PLAIN_STEP, scopeAt, type StepEntry } from './step-entry.ts'

export const roleStepSchema = z.object({
	...{ id, kind: z.literal('role'), to: formula, role: number },
	/** For whoever decides; it holds no formula, since several read it. */
	words
})
export type RoleStep = z.infer<typeof roleStepSchema>

export const roleStep: StepEntry<RoleStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'role',
			about: 'Asks stewards, and who else may give it, that somebody be given a role; nobody decides what they set off',
			parts: [
				'Ask that ',
				{ key: 'to', type: 'person', title: 'a formula that names a person' },
				' be given the role ',
				{ key: 'role', type: 'role', title: 'a role' },
				', saying ',
				{ key: 'words', type: 'text', title: 'why, for whoever decides' }
			]
		},
		blank: { kind: 'role', to: '', role: null, words: '' }
	},
	needsRow: false,
	check: ({ to, role, words: why }, around) => [
		...checkPerson(to, scopeAt(around, around.hasMe)),
		...(around.hasRole(role) ? [] : mistake('The role that it asks for is gone. Choose another.')),
		...(why.trim() === '' ? mistake('Say why, for whoever decides.') : [])
	]
}
