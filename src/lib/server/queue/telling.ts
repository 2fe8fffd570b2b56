/** How somebody is told by mail: at once but for their quiet hours, once a day, or never. Notices stand on their page anyhow. */
import { AppError } from '$lib/core/app-error.ts'
import { MAIL_WAYS, type Telling } from '$lib/core/requests/notices.ts'
import { addDays } from '$lib/core/schedule/calendar.ts'
import { clockOf, minutesOf } from '$lib/core/schedule/time-of-day.ts'
import { instantAt, localDate, wallClock } from '$lib/core/schedule/zone.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'

const READ = `SELECT mail, quiet_from AS quietFrom, quiet_until AS quietUntil FROM telling WHERE person = ?`
const SET = `
	INSERT INTO telling (person, mail, quiet_from, quiet_until) VALUES (@person, @mail, @quietFrom, @quietUntil)
	ON CONFLICT (person) DO UPDATE SET mail = excluded.mail, quiet_from = excluded.quiet_from, quiet_until = excluded.quiet_until`
const OWN_ZONE = `SELECT time_zone FROM person_setting WHERE person = ?`
const AT_ONCE: Telling = { mail: 'at once', quietFrom: '', quietUntil: '' }
/** When the mail of the day leaves, on its reader's clock. */
const OF_THE_DAY = '07:00'

export function readTelling(store: Store, { person }: { person: number }): Telling {
	return store.prepare<Telling>(READ).get(person) ?? AT_ONCE
}

/** Throws where a time cannot be read, or only one of the two is given. */
export function setTelling(store: Store, { person, now, ...telling }: Telling & { person: number; now: number }): void {
	if (!MAIL_WAYS.includes(telling.mail)) throw new AppError('invalid', 'Choose how you are told by mail.')
	const [quietFrom, quietUntil] = [telling.quietFrom, telling.quietUntil].map((text) => text.trim())
	const times = [quietFrom ?? '', quietUntil ?? ''].map((text) => (text === '' ? '' : timeIn(text)))
	const [from = '', until = ''] = times
	if ((from === '') !== (until === ''))
		throw new AppError('invalid', 'Quiet hours have a beginning and an end. Fill in both, or neither.')
	if (from !== '' && from === until) throw new AppError('invalid', 'Quiet hours that end as they begin are none.')
	store.prepare(SET).run({ person, mail: telling.mail, quietFrom: from, quietUntil: until })
	const entry = { at: now, person, through: 'account' as const, kind: 'set how told', table: null, row: null }
	writeHistory(store, { ...entry, body: { mail: telling.mail } })
}

function timeIn(text: string): string {
	const minutes = minutesOf(text)
	if (minutes === undefined) throw new AppError('invalid', `"${text}" is no time of day. Write it like 22:00.`)
	return clockOf(minutes)
}

/** When a message to somebody leaves by mail (epoch ms); `day`: with the others of their day. `isMany`: they had very many today. */
export function mailAt(
	store: Store,
	{ person, now, isMany }: { person: number; now: number; isMany: boolean }
): { readonly is: 'at' | 'day'; readonly at: number } | { readonly is: 'never' } {
	const { mail, quietFrom, quietUntil } = readTelling(store, { person })
	if (mail === 'never') return { is: 'never' }
	const zone = zoneOf(store, person)
	const isOfDay = mail === 'once a day' || isMany
	const at = isOfDay ? nextAt(OF_THE_DAY, { zone, now }) : now
	const clock = { zone, now: at }
	return {
		is: isOfDay ? 'day' : 'at',
		at: isQuiet({ quietFrom, quietUntil }, clock) ? nextAt(quietUntil, clock) : at
	}
}

/** When somebody's quiet hours end (epoch ms); now, outside of them. */
export function quietUntil(store: Store, { person, now }: { person: number; now: number }): number {
	const { quietFrom, quietUntil: until } = readTelling(store, { person })
	const clock = { zone: zoneOf(store, person), now }
	return isQuiet({ quietFrom, quietUntil: until }, clock) ? nextAt(until, clock) : now
}

function zoneOf(store: Store, person: number): string {
	return store.prepare<string>(OWN_ZONE).pluck().get(person) ?? store.workspace().timeZone
}

interface Clock {
	readonly zone: string
	/** Epoch ms. */
	readonly now: number
}

function isQuiet({ quietFrom, quietUntil }: Pick<Telling, 'quietFrom' | 'quietUntil'>, clock: Clock): boolean {
	const [from, until] = [minutesOf(quietFrom), minutesOf(quietUntil)]
	if (from === undefined || until === undefined) return false
	const at = minutesNow(clock)
	// Over midnight most nights.
	return from < until ? from <= at && at < until : at >= from || at < until
}

/** A clock that shows it stands in UTC, as `wallClock` gives it. */
function minutesNow({ zone, now }: Clock): number {
	return Math.floor((wallClock(now, zone) % 86_400_000) / 60_000)
}

/** The next time that a clock shows this (epoch ms). */
function nextAt(time: string, clock: Clock): number {
	const today = localDate(new Date(clock.now).toISOString(), clock.zone)
	const day = (minutesOf(time) ?? 0) > minutesNow(clock) ? today : (addDays(today, 1) ?? today)
	return Date.parse(instantAt(`${day}T${time}:00.000`, clock.zone))
}
