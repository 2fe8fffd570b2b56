/** Calls another program with values, signed; the routine goes on once it has taken them. */
import { z } from 'zod'
import { mistake, remark } from '../document/findings.ts'
import { id, words } from '../document/parts.ts'
import { nameKey } from '../text/key.ts'
import { PLAIN_STEP, type StepEntry } from './step-entry.ts'
import type { GiveStep } from './value-steps.ts'

export const callStepSchema = z.object({
	...{ id, kind: z.literal('call') },
	/** The name of the program, as stewards call it. */
	program: words,
	/** Under the address of the program; blank for that itself. */
	path: z.string().max(500)
})
export type CallStep = z.infer<typeof callStepSchema>

export const callStep: StepEntry<CallStep & { readonly lines: readonly { readonly kind: string }[] }> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'call',
			about: 'Sends values to another program, signed, and goes on once it has taken them',
			parts: [
				'Call the program ',
				{ key: 'program', type: 'program', title: 'its name, as stewards call it' },
				' at ',
				{ key: 'path', type: 'text', title: 'Where, under its address', empty: 'its address' }
			]
		},
		blank: { kind: 'call', program: '', path: '', lines: [] }
	},
	holds: ['give'],
	needsRow: false,
	check({ program, path, lines }) {
		const given = lines.filter((line): line is GiveStep => line.kind === 'give')
		const keys = given.map(({ as }) => nameKey(as))
		return [
			...(program.trim() === ''
				? mistake('Say which program: one that a steward has put on the page of the workspace.')
				: []),
			...(path === '' || /^\/[^\s#]*$/.test(path)
				? []
				: mistake(`"${path}" is no path under an address. Write it like /orders.`)),
			...(new Set(keys).size < keys.length ? mistake('Two values go by one name. Call one of them otherwise.') : []),
			...(given.length === 0 ? mistake('It sends nothing yet. Put a line into it: Give … as …') : []),
			...given.flatMap(({ value, as }) => remark(`${as}, which is ${value}, leaves the workspace for ${program}.`))
		]
	}
}
