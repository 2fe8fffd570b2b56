/** Waits until a condition holds of the row at hand; what stands in it is done then, "Otherwise" once the time is over. */
import { z } from 'zod'
import { mistake } from '../document/findings.ts'
import { aWhile, formula, id } from '../document/parts.ts'
import { checkCondition } from '../formula/check/check.ts'
import { PLAIN_STEP, scopeAt, type StepEntry } from './step-entry.ts'

export const untilStepSchema = z.object({
	...{ id, kind: z.literal('until'), where: formula },
	/** After which it is not waited for any more. */
	ends: aWhile.nullish()
})
export type UntilStep = z.infer<typeof untilStepSchema>

export const untilStep: StepEntry<UntilStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'until',
			about: 'Waits until something holds of the row, whoever sees to it; what stands in it is done then',
			parts: [
				'Wait until ',
				{ key: 'where', type: 'condition', title: 'what must hold' },
				{ key: 'ends', type: 'while', title: 'How long at most', before: ', for at most ', clause: 'for at most…' }
			]
		},
		blank: { kind: 'until', where: '', lines: [] }
	},
	holds: 'steps',
	check({ where }, around) {
		if (where.trim() === '') return mistake('Say what it waits for.')
		return checkCondition(where, scopeAt(around, true)).issues.flatMap(({ message }) => mistake(message))
	}
}
