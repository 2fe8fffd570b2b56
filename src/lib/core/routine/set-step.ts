import { z } from 'zod'
import { mistake } from '../document/findings.ts'
import { formula, id, number } from '../document/parts.ts'
import { check } from '../formula/check/check.ts'
import { findColumn } from '../model/table.ts'
import type { StepEntry } from './step-entry.ts'

export const setStepSchema = z.object({ id, kind: z.literal('set'), column: number, formula })
export type SetStep = z.infer<typeof setStepSchema>

export const setStep: StepEntry<SetStep> = {
	sentence: {
		kind: {
			kind: 'set',
			about: 'Writes a column of the row',
			parts: [
				'Set ',
				{ key: 'column', type: 'column', title: 'a column' },
				' to ',
				{ key: 'formula', type: 'formula', title: 'a formula' }
			]
		},
		blank: { kind: 'set', column: null, formula: '' }
	},
	withoutPresser: 'A step that sets a column needs a button to start it: it acts as whoever pressed.',
	written: ({ column }) => [column],
	check(step, table, catalogue) {
		const column = findColumn(table, step.column)
		if (!column) return mistake('The column it sets is gone.')
		if (column.computed) return mistake(`${column.name} is worked out from other columns, and cannot be set.`)
		return check(step.formula, { catalogue, rows: [table], me: true }).issues.flatMap(({ message }) => mistake(message))
	}
}
