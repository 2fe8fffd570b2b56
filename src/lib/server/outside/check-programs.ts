/** What is wrong with the names of other programs in an app: the list of them is the stewards', and in no app. */
import type { AppDocument } from '$lib/core/app/document.ts'
import type { Finding } from '$lib/core/document/findings.ts'
import { placedSteps } from '$lib/core/routine/step-tree.ts'
import type { Store } from '../store/store.ts'
import { programByName } from './programs.ts'

export function checkPrograms(store: Store, { routines }: AppDocument): Finding[] {
	return routines.flatMap((routine): Finding[] => {
		const { id, name, start } = routine
		const spot = { bay: 'routines', routine: id } as const
		const asks = start.kind === 'request' ? refusalOf(store, start.from, false) : undefined
		const calls = placedSteps(routine).flatMap(({ step, number }): Finding[] => {
			const message = step.kind === 'call' ? refusalOf(store, step.program, true) : undefined
			if (message === undefined) return []
			return [
				{ weight: 'mistake', place: `Routine ${name}, line ${number}`, spot: { ...spot, line: step.id }, message }
			]
		})
		return [...(asks === undefined ? [] : [{ weight: 'mistake' as const, place: `Routine ${name}`, spot, message: asks }]), ...calls] // prettier-ignore
	})
}

/** Nothing for a blank name, which is said where it stands. */
function refusalOf(store: Store, name: string, isCalled: boolean): string | undefined {
	if (name.trim() === '') return undefined
	const program = programByName(store, name)
	if (!program) return `No program is called ${name}. A steward puts it on the page of the workspace.`
	return isCalled && program.address === ''
		? `${name} only asks: a steward gives the address at which it is called.`
		: undefined
}
