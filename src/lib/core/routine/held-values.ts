/** The values that a routine holds by name, from its start on or from the step that keeps them. */
import { kindOfHeld } from '../sentence/held-kind.ts'
import type { HeldKind } from '../formula/check/rename.ts'
import { entryOfStart, linesOf, type Routine, type Step } from './routine.ts'

export type HeldKinds = Readonly<Record<string, HeldKind>>

/** All of them, by name. */
export function heldIn({ start, steps }: Pick<Routine, 'start' | 'steps'>): HeldKinds {
	return { ...entryOfStart(start).holds, ...heldBy(steps, ['take', 'keep']) }
}

/** What whatever starts it gives it. */
export function takenBy({ steps }: Pick<Routine, 'steps'>): HeldKinds {
	return heldBy(steps, ['take'])
}

/** Those that were read from no row: what somebody scanned, what another program sent. They may stand in words to anybody. */
export function givenTo(routine: Pick<Routine, 'start' | 'steps'>): HeldKinds {
	const { holds, takes } = entryOfStart(routine.start)
	return { ...holds, ...(takes === 'from outside' ? takenBy(routine) : {}) }
}

function heldBy(steps: readonly Step[], kinds: readonly Step['kind'][]): HeldKinds {
	return Object.assign(
		{},
		...steps.map((step) => {
			const kind = 'holds' in step && kinds.includes(step.kind) ? kindOfHeld(step) : undefined
			return { ...(kind && 'holds' in step ? { [step.holds]: kind } : {}), ...heldBy(linesOf(step), kinds) }
		})
	) as HeldKinds
}
