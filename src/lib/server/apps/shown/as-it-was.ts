/** The day on whose evening a line shows something as it was. */
import type { Here } from '$lib/core/formula/check/check-call.ts'
import { isIsoDate } from '$lib/core/schedule/calendar.ts'
import { standingOf, type ByActor } from '../../rights/rights-of-actor.ts'
import type { Store } from '../../store/store.ts'
import { workOutAlone } from '../work-out-alone.ts'

/** Undefined where none is said, or where what its formula reads is not chosen yet: then it is as it is. */
export function dayThen(
	store: Store,
	formula: string,
	{ actor, now, here }: ByActor & { readonly here: Here }
): string | undefined {
	if (formula.trim() === '') return undefined
	const { value } = workOutAlone(store, formula, { standing: standingOf(store, actor, now), here })
	return typeof value === 'string' && isIsoDate(value) ? value : undefined
}
