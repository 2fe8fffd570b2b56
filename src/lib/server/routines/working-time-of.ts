import { USUAL_HOURS, USUAL_WEEK, type WorkingTime } from '$lib/core/schedule/working-time.ts'
import { minutesOf } from '$lib/core/schedule/time-of-day.ts'
import type { Store } from '../store/store.ts'

/** When people work in this workspace, as a steward says it. */
export function workingTimeOf(store: Store): WorkingTime {
	const { document } = store.workspace()
	const known = KNOWN.get(document)
	if (known) return known
	const { week = USUAL_WEEK, from, until } = document.work ?? {}
	const working = {
		week,
		from: minutesOf(from ?? USUAL_HOURS.from) ?? 0,
		until: minutesOf(until ?? USUAL_HOURS.until) ?? 0,
		holidays: new Set((document.holidays ?? []).map(({ day }) => day))
	}
	KNOWN.set(document, working)
	return working
}

const KNOWN = new WeakMap<object, WorkingTime>()
