/** What a clock on the wall shows at an instant, in a time zone of the IANA database. */

/** The date, as ISO 8601. @param instant ISO 8601 in UTC */
export function localDate(instant: string, zone: string): string {
	const { year = '', month = '', day = '' } = partsAt(instant, zone)
	return `${year.padStart(4, '0')}-${month}-${day}`
}

/** The time of day, as a part of a day. @param instant ISO 8601 in UTC */
export function localTime(instant: string, zone: string): number {
	const { hour, minute, second } = partsAt(instant, zone)
	return (Number(hour) * 3600 + Number(minute) * 60 + Number(second)) / 86_400
}

/**
 * The instant at which a clock on the wall shows a date and time, as ISO 8601 in UTC. An hour that comes twice in autumn is
 * the first of the two; one that is left out in spring is as many minutes after the gap began.
 * @param wall `2026-04-03T14:30:00.000`, without a zone
 */
export function instantAt(wall: string, zone: string): string {
	const asked = Date.parse(`${wall}Z`)
	const offsetAt = (instant: number) => wallClock(instant, zone) - instant
	// The offsets a day before and after are all that can hold; the earlier one is tried first.
	const before = offsetAt(asked - DAY_MS)
	const early = asked - before
	if (wallClock(early, zone) === asked) return new Date(early).toISOString()
	const late = asked - offsetAt(asked + DAY_MS)
	return new Date(wallClock(late, zone) === asked ? late : early).toISOString()
}

const DAY_MS = 86_400_000

/** What the clock shows, as if it were UTC. @param instant epoch ms, as what it gives is */
export function wallClock(instant: number, zone: string): number {
	const seconds = Math.floor(instant / 1000) * 1000
	const { year = '', month = '', day = '', hour, minute, second } = partsAt(new Date(seconds).toISOString(), zone)
	return Date.parse(`${year.padStart(4, '0')}-${month}-${day}T${hour}:${minute}:${second}Z`) + (instant - seconds)
}

// Making a formatter takes a hundred times as long as using one.
const formatters = new Map<string, Intl.DateTimeFormat>()

function partsAt(instant: string, zone: string): Partial<Record<Intl.DateTimeFormatPartTypes, string>> {
	const formatter = formatters.get(zone) ?? makeFormatter(zone)
	formatters.set(zone, formatter)
	return Object.fromEntries(formatter.formatToParts(Date.parse(instant)).map(({ type, value }) => [type, value]))
}

function makeFormatter(zone: string): Intl.DateTimeFormat {
	return new Intl.DateTimeFormat('en-GB', {
		timeZone: zone,
		hourCycle: 'h23',
		year: 'numeric',
		month: '2-digit',
		day: '2-digit',
		hour: '2-digit',
		minute: '2-digit',
		second: '2-digit'
	})
}
