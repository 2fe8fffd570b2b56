/** Runs another routine of the app on the row at hand; it goes on by itself, as whoever it acts as. */
import { z } from 'zod'
import { mistake, type Found } from '../document/findings.ts'
import { hereIn } from '../formula/check/rename.ts'
import { id } from '../document/parts.ts'
import { nameKey } from '../text/key.ts'
import { PLAIN_STEP, type AroundStep, type NamedRoutine, type StepEntry } from './step-entry.ts'
import { checkValue, type GiveStep } from './value-steps.ts'

export const runStepSchema = z.object({ id, kind: z.literal('run'), routine: z.string().max(40) })
export type RunStep = z.infer<typeof runStepSchema>

export const runStep: StepEntry<RunStep & { readonly lines: readonly { readonly kind: string }[] }> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'run',
			about: 'Runs another routine on the row, with values that it takes; this one goes on without waiting for it',
			parts: ['Run ', { key: 'routine', type: 'routine', title: 'a routine' }, ' on the row']
		},
		blank: { kind: 'run', routine: '', lines: [] }
	},
	holds: ['give'],
	check({ routine, lines }, around) {
		const { table, catalogue, findRoutine } = around
		const called = findRoutine(routine)
		if (!called) return mistake('Say which routine it runs: one that starts when another runs it.')
		if (called.calledOn === undefined)
			return mistake(`${called.name} starts otherwise. Let it start when another routine runs it.`)
		const begins = catalogue.tables.get(called.calledOn)?.name ?? 'a table that is gone'
		const given = lines.filter((line): line is GiveStep => line.kind === 'give')
		return [
			...(table && called.calledOn !== table.id
				? mistake(`${called.name} starts on rows of ${begins}, and here stands one of ${table.name}.`)
				: []),
			...checkGiven(given, called, around)
		]
	}
}

/** What it gives is what the other takes, each once and of its kind. */
function checkGiven(given: readonly GiveStep[], { name, takes }: NamedRoutine, around: AroundStep): Found[] {
	const wanted = hereIn(takes, around.catalogue) ?? new Map()
	const keys = new Set(given.map(({ as }) => nameKey(as)))
	return [
		...given.flatMap(({ as, value }) => {
			const held = wanted.get(nameKey(as))
			if (!held) return mistake(`${name} takes nothing that is called "${as}". Let it begin with: Take … as ${as}.`)
			return checkValue(value, held.type, around)
		}),
		...Object.keys(takes).flatMap((as) =>
			keys.has(nameKey(as)) ? [] : mistake(`${name} takes ${as}. Give it by a line in this one: Give … as ${as}.`)
		)
	]
}
