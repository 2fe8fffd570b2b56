/** Runs another routine of the app on the row at hand; it goes on by itself, as whoever it acts as. */
import { z } from 'zod'
import { mistake } from '../document/findings.ts'
import { id } from '../document/parts.ts'
import { PLAIN_STEP, type StepEntry } from './step-entry.ts'

export const runStepSchema = z.object({ id, kind: z.literal('run'), routine: z.string().max(40) })
export type RunStep = z.infer<typeof runStepSchema>

export const runStep: StepEntry<RunStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'run',
			about: 'Runs another routine on the row; this one goes on without waiting for it',
			parts: ['Run ', { key: 'routine', type: 'routine', title: 'a routine' }, ' on the row']
		},
		blank: { kind: 'run', routine: '' }
	},
	check({ routine }, { table, catalogue, findRoutine }) {
		const called = findRoutine(routine)
		if (!called) return mistake('Say which routine it runs: one that starts when another runs it.')
		if (called.calledOn === undefined)
			return mistake(`${called.name} starts otherwise. Let it start when another routine runs it.`)
		if (!table || called.calledOn === table.id) return []
		const begins = catalogue.tables.get(called.calledOn)?.name ?? 'a table that is gone'
		return mistake(`${called.name} starts on rows of ${begins}, and here stands one of ${table.name}.`)
	}
}
