import { AppError } from '$lib/core/app-error.ts'
import { addDays } from '$lib/core/schedule/calendar.ts'
import { addWorkingDays, addWorkingMinutes } from '$lib/core/schedule/working-time.ts'
import { instantAt, localDate, wallClock } from '$lib/core/schedule/zone.ts'
import type { While } from '$lib/core/sentence/slots/times.ts'
import type { Store } from '../store/store.ts'
import { workingTimeOf } from './working-time-of.ts'

/** When a while is over, on the wall clock of the workspace (epoch ms). */
export function waitUntil(store: Store, { many, span }: While, now: number): number {
	if (span === 'minutes' || span === 'hours') return now + many * (span === 'hours' ? 3_600_000 : 60_000)
	const zone = store.workspace().timeZone
	const today = localDate(new Date(now).toISOString(), zone)
	const working = workingTimeOf(store)
	if (span === 'working hours') return onWallClock(addWorkingMinutes(wallClock(now, zone), many * 60, working), zone)
	const day = span === 'days' ? addDays(today, many) : addWorkingDays(today, many, working)
	// A clock that shows it stands in UTC, as `wallClock` gives it.
	const ofDay = new Date(wallClock(now, zone)).toISOString().slice(10, 23)
	return onWallClock(day === undefined ? undefined : Date.parse(`${day}${ofDay}Z`), zone)
}

/** The moment at which a clock of the zone shows this; `wall`: as `wallClock` gives it. */
function onWallClock(wall: number | undefined, zone: string): number {
	if (wall === undefined) throw new AppError('invalid', 'It would wait past the end of the calendar.')
	return Date.parse(instantAt(new Date(wall).toISOString().slice(0, 23), zone))
}
