/** Brings back a row that was removed, from the bin. */
import { z } from 'zod'
import { id } from '../document/parts.ts'
import { PLAIN_STEP, type StepEntry } from './step-entry.ts'

export const restoreStepSchema = z.object({ id, kind: z.literal('restore') })
export type RestoreStep = z.infer<typeof restoreStepSchema>

export const restoreStep: StepEntry<RestoreStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: { kind: 'restore', about: 'Brings the removed row back from the bin', parts: ['Bring the row back'] },
		blank: { kind: 'restore' }
	},
	needsActor: true,
	writes: (_step, at) => (at === undefined ? [] : [{ table: at, verb: 'add', columns: [] }]),
	check: () => []
}
