/** Asks for a decision on the row at hand, in a sign-off of the same app; the routine goes on without waiting for it. */
import { z } from 'zod'
import { mistake } from '../document/findings.ts'
import { id } from '../document/parts.ts'
import { PLAIN_STEP, type StepEntry } from './step-entry.ts'

export const signoffStepSchema = z.object({ id, kind: z.literal('signoff'), signoff: z.string().max(40) })
export type SignoffStep = z.infer<typeof signoffStepSchema>

export const signoffStep: StepEntry<SignoffStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'signoff',
			about: 'Begins a sign-off on the row, unless one is open; this one goes on without waiting for what is decided',
			parts: ['Begin the sign-off ', { key: 'signoff', type: 'sign-off', title: 'a sign-off' }, ' on the row']
		},
		blank: { kind: 'signoff', signoff: '' }
	},
	check({ signoff }, { table, catalogue, findSignoff }) {
		const found = findSignoff(signoff)
		if (!found) return mistake('Say which sign-off it begins.')
		if (!table || found.table === table.id) return []
		const asks = catalogue.tables.get(found.table)?.name ?? 'a table that is gone'
		return mistake(`${found.name} decides on rows of ${asks}, and here stands one of ${table.name}.`)
	}
}
