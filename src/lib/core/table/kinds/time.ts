import { readTime } from '../read-time.ts'
import { read, refuse, type ColumnKind } from './kind.ts'

const DAY_SECONDS = 86_400

/** A time of day, to the second. Its value is the part of a day since midnight, so that times can be reckoned with. */
export const time: ColumnKind = {
	name: 'time',
	read: (text) => {
		const value = readTime(text)
		return value === undefined ? refuse(`"${text}" is no time of day. Write it like 14:30.`) : read(value)
	},
	check: (value, column) => {
		if (typeof value === 'string') return time.read(value.trim(), column, { dates: 'day first', decimal: '.' })
		const fits = typeof value === 'number' && value >= 0 && value < 1
		return fits ? read(value) : refuse('A time of day was expected here.')
	},
	toStored: (value) => Math.min(DAY_SECONDS - 1, Math.round(Number(value) * DAY_SECONDS)),
	fromStored: (stored) => Number(stored) / DAY_SECONDS
}

/** `14:30`, with seconds only where there are some. @param value a part of a day */
export function showTime(value: number): string {
	const all = Math.round(value * DAY_SECONDS)
	const two = (part: number) => String(part).padStart(2, '0')
	const seconds = all % 60
	return `${two(Math.floor(all / 3600))}:${two(Math.floor(all / 60) % 60)}${seconds > 0 ? `:${two(seconds)}` : ''}`
}
