/** Asks somebody to fill in columns of the row at hand, and goes on once they have, or once the time for it is over. */
import { z } from 'zod'
import { checkPerson } from '../document/check-person.ts'
import { mistake, type Found } from '../document/findings.ts'
import { aWhile, formula, id, number, words } from '../document/parts.ts'
import { findColumn } from '../model/table.ts'
import { checkWords } from './check-words.ts'
import { OUTSIDE } from '../sentence/slots/all.ts'
import { checkAskedOutside, checkOutside, TO_OUTSIDE } from './to-outside.ts'
import { PLAIN_STEP, scopeAt, type AroundStep, type StepEntry } from './step-entry.ts'

export const askStepSchema = z.object({
	id,
	kind: z.literal('ask'),
	/** A formula that names a person. */
	to: formula,
	columns: z.array(number),
	/** Text with formulas in braces, worked out as whoever is asked may see them. */
	subject: words,
	body: z.string().max(5_000),
	/** How often they are reminded. */
	remind: aWhile.nullish(),
	/** After which nobody is asked any more. */
	ends: aWhile.nullish(),
	outside: z.enum(OUTSIDE).nullish()
})
export type AskStep = z.infer<typeof askStepSchema>

export const askStep: StepEntry<AskStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'ask',
			about: 'Asks somebody to fill in columns of the row, and waits; what stands in it is done once they have',
			parts: [
				'Ask ',
				{ key: 'to', type: 'person', title: 'a formula that names a person' },
				' to fill in ',
				{ key: 'columns', type: 'columns', title: 'columns of the row' },
				' with the message ',
				{ key: 'subject', type: 'subject', title: 'its subject' },
				', saying ',
				{ key: 'body', type: 'message', title: 'its words' },
				{
					key: 'remind',
					type: 'while',
					title: 'How often',
					before: ', reminding them every ',
					clause: 'reminding them…'
				},
				{ key: 'ends', type: 'while', title: 'How long at most', before: ', for at most ', clause: 'for at most…' },
				TO_OUTSIDE
			]
		},
		blank: { kind: 'ask', to: '', columns: [], subject: '', body: '', lines: [] }
	},
	holds: 'steps',
	check(step, around) {
		const { to, subject, body } = step
		return [
			...checkPerson(to, scopeAt(around, around.hasMe)),
			...checkColumns(step, around),
			...(subject.trim() === '' ? mistake('Its message has no subject yet.') : []),
			...checkWords([subject, body], around),
			...checkOutside(step, around),
			...checkAskedOutside(step, around)
		]
	}
}

function checkColumns({ columns }: AskStep, { table }: AroundStep): Found[] {
	if (!table) return []
	if (columns.length === 0) return mistake('It asks for nothing yet: choose the columns that are to be filled in.')
	return columns.flatMap((id) => {
		const column = findColumn(table, id)
		if (!column) return mistake('A column that it asks for is gone.')
		return column.computed ? mistake(`${column.name} is worked out from other columns, and cannot be filled in.`) : []
	})
}
