import { instantAt } from '../../schedule/zone.ts'
import { parseDate } from './date.ts'
import { read, refuse, type ColumnKind } from './kind.ts'
import type { Writing } from '../../model/writing.ts'

const INSTANT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(?::\d{2}(?:\.\d{1,3})?)?(?:Z|[+-]\d{2}:\d{2})$/
/** A date, a time of day as people and files write it, and how far its clock is from UTC where that stands there. */
const WRITTEN =
	/^(.+?)[T ,]+(\d{1,2})(?:[:.](\d{2})(?:[:.](\d{2})(?:[.,]\d+)?)?)?\s*([ap])?\.?(m)?\.?\s*(Z|UTC|GMT|[+-]\d{2}:?\d{2})?$/i

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
	fromStored: (stored) => String(stored)
}

/** @param zone the time zone in which a text without one is read */
export function parseInstant(text: string, writing: Writing, zone = 'UTC'): string | undefined {
	if (INSTANT.test(text)) {
		const instant = Date.parse(text)
		return Number.isFinite(instant) ? new Date(instant).toISOString() : undefined
	}
	const match = WRITTEN.exec(text)
	if (!match) return undefined
	const [, day = '', hour = '', minute, second = '00', half, meridiem, offset] = match
	// An hour alone is one only with its half of the day: `3 April 2026` is a date, not three o'clock.
	if ((half === undefined) !== (meridiem === undefined) || (minute === undefined && half === undefined))
		return undefined
	const date = parseDate(day.trim(), writing)
	const clock = clockOf(Number(hour), half, { minute: minute ?? '00', second })
	if (date === undefined || clock === undefined) return undefined
	const wall = `${clock.nextDay ? dayAfter(date) : date}T${clock.text}.000`
	if (offset === undefined) return instantAt(wall, zone)
	const instant = Date.parse(`${wall}${offsetText(offset)}`)
	return Number.isFinite(instant) ? new Date(instant).toISOString() : undefined
}

/** A time of day; 24:00 is the end of the day (ISO 8601-1, 4.2.3 of 2004, from memory), which is the beginning of the next. */
function clockOf(
	hour: number,
	half: string | undefined,
	{ minute, second }: { readonly minute: string; readonly second: string }
): { readonly text: string; readonly nextDay: boolean } | undefined {
	if (Number(minute) > 59 || Number(second) > 59) return undefined
	if (half !== undefined && (hour < 1 || hour > 12)) return undefined
	const hours = half === undefined ? hour : (hour % 12) + (half.toLowerCase() === 'p' ? 12 : 0)
	const isEnd = hours === 24 && Number(minute) === 0 && Number(second) === 0
	if (hours > 23 && !isEnd) return undefined
	return { text: `${String(isEnd ? 0 : hours).padStart(2, '0')}:${minute}:${second}`, nextDay: isEnd }
}

function dayAfter(date: string): string {
	return new Date(Date.parse(`${date}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10)
}

/** `+0200` and `+02:00` are one; letters mean none. */
function offsetText(offset: string): string {
	return /[a-z]/i.test(offset) ? 'Z' : offset.replace(/^([+-]\d{2}):?(\d{2})$/, '$1:$2')
}
