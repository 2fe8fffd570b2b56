import { AppError } from '$lib/core/app-error.ts'
import { addDays, addWorkdays } from '$lib/core/schedule/calendar.ts'
import { instantAt, localDate, wallClock } from '$lib/core/schedule/zone.ts'
import type { While } from '$lib/core/sentence/slots/times.ts'
import type { Store } from '../store/store.ts'
import { holidaysOf } from './holidays-of.ts'

/** When a while is over, on the wall clock of the workspace (epoch ms). */
export function waitUntil(store: Store, { many, span }: While, now: number): number {
	if (span === 'minutes' || span === 'hours') return now + many * (span === 'hours' ? 3_600_000 : 60_000)
	const zone = store.workspace().timeZone
	const today = localDate(new Date(now).toISOString(), zone)
	const day = span === 'days' ? addDays(today, many) : addWorkdays(today, many, holidaysOf(store))
	if (day === undefined) throw new AppError('invalid', 'It would wait past the end of the calendar.')
	// A clock that shows it stands in UTC, as `wallClock` gives it.
	const wall = new Date(wallClock(now, zone)).toISOString().slice(10, 23)
	return Date.parse(instantAt(`${day}${wall}`, zone))
}
