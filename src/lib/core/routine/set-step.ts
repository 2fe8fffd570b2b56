import { z } from 'zod'
import { mistake, type Found } from '../document/findings.ts'
import { formula, id, number } from '../document/parts.ts'
import { check } from '../formula/check/check.ts'
import { findColumn, type Table } from '../model/table.ts'
import { PLAIN_STEP, scopeAt, type AroundStep, type StepEntry } from './step-entry.ts'

export const setStepSchema = z.object({ id, kind: z.literal('set'), column: number, formula })
export type SetStep = z.infer<typeof setStepSchema>

export const setStep: StepEntry<SetStep> = {
	...PLAIN_STEP,
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
	needsActor: true,
	writes: ({ column }, at) => (at === undefined ? [] : [{ table: at, verb: 'change', columns: [column] }]),
	check: (step, around) => (around.table ? checkSetting(step, around.table, around) : [])
}

/** What is wrong with a column that is set, of the row at hand or of one that is added. */
export function checkSetting(
	{ column: id, formula }: Pick<SetStep, 'column' | 'formula'>,
	table: Table,
	around: AroundStep
): Found[] {
	const column = findColumn(table, id)
	if (!column) return mistake('The column it sets is gone.')
	if (column.computed) return mistake(`${column.name} is worked out from other columns, and cannot be set.`)
	return check(formula, scopeAt(around, true)).issues.flatMap(({ message }) => mistake(message))
}
