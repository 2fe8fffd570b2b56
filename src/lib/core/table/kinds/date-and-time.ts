import { instantAt, localDate, localTime } from '../../schedule/zone.ts'
import { parseDate, showDate } from './date.ts'
import { read, refuse, type ColumnKind, type Writing } from './kind.ts'

const INSTANT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(?::\d{2}(?:\.\d{1,3})?)?(?:Z|[+-]\d{2}:\d{2})$/
const LOCAL = /^(.+?)[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*(am|pm)?$/i

/** An instant in UTC, as `2026-11-23T14:05:00.000Z`; written and shown in the workspace's time zone. */
export const dateAndTime: ColumnKind = {
	name: 'date and time',
	read: (text, column, writing) => {
		const value = parseInstant(text, writing, column.timeZone)
		return value === undefined ? refuse(`"${text}" is no date and time. Write it like 2026-04-03 14:30.`) : read(value)
	},
	check: (value) => {
		const instant = typeof value === 'string' && INSTANT.test(value) ? Date.parse(value) : Number.NaN
		return Number.isFinite(instant)
			? read(new Date(instant).toISOString())
			: refuse('A date and time was expected here.')
	},
	toStored: (value) => String(value),
	fromStored: (stored) => String(stored),
	show: (value, column) => showInstant(String(value), column.timeZone)
}

export function showInstant(instant: string, zone = 'UTC'): string {
	const minutes = Math.floor(localTime(instant, zone) * 1440 + 1e-6)
	const clock = [Math.floor(minutes / 60), minutes % 60].map((part) => String(part).padStart(2, '0')).join(':')
	return `${showDate(localDate(instant, zone))} ${clock}`
}

/** As it is typed in: `2026-11-23T14:05`, with seconds where there are any. */
export function typeInstant(instant: string, zone = 'UTC'): string {
	const seconds = Math.round(localTime(instant, zone) * 86_400)
	const parts = [
		Math.floor(seconds / 3600),
		Math.floor(seconds / 60) % 60,
		...(seconds % 60 === 0 ? [] : [seconds % 60])
	]
	return `${localDate(instant, zone)}T${parts.map((part) => String(part).padStart(2, '0')).join(':')}`
}

/** @param zone where the clock hangs that a text without a zone was read from */
export function parseInstant(text: string, writing: Writing, zone = 'UTC'): string | undefined {
	if (INSTANT.test(text)) {
		const instant = Date.parse(text)
		return Number.isFinite(instant) ? new Date(instant).toISOString() : undefined
	}
	const match = LOCAL.exec(text)
	if (!match) return undefined
	const [, day = '', hour = '', minute = '', second = '00', half] = match
	const date = parseDate(day.trim(), writing)
	const hours = toHours(Number(hour), half)
	if (date === undefined || hours > 23 || Number(minute) > 59 || Number(second) > 59) return undefined
	return instantAt(`${date}T${String(hours).padStart(2, '0')}:${minute}:${second}.000`, zone)
}

function toHours(hour: number, half: string | undefined): number {
	if (!half) return hour
	return (hour % 12) + (half.toLowerCase() === 'pm' ? 12 : 0)
}
