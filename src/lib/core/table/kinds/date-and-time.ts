import { parseDate, showDate } from './date.ts'
import { read, refuse, type ColumnKind, type Writing } from './kind.ts'

const INSTANT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(?::\d{2}(?:\.\d{1,3})?)?(?:Z|[+-]\d{2}:\d{2})$/
const LOCAL = /^(.+?)[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*(am|pm)?$/i

/** An instant in UTC, as `2026-11-23T14:05:00.000Z`. Text without a zone is taken as UTC. */
export const dateAndTime: ColumnKind = {
	name: 'date and time',
	read: (text, _column, writing) => {
		const value = parseInstant(text, writing)
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
	show: (value) => `${showDate(String(value).slice(0, 10))} ${String(value).slice(11, 16)}`
}

export function parseInstant(text: string, writing: Writing): string | undefined {
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
	return `${date}T${String(hours).padStart(2, '0')}:${minute}:${second}.000Z`
}

function toHours(hour: number, half: string | undefined): number {
	if (!half) return hour
	return (hour % 12) + (half.toLowerCase() === 'pm' ? 12 : 0)
}
