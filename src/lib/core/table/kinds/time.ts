import { readTime } from '../read-time.ts'
import { TYPED } from '../../model/writing.ts'
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
		if (typeof value === 'string') return time.read(value.trim(), column, TYPED)
		const fits = typeof value === 'number' && value >= 0 && value < 1
		return fits ? read(value) : refuse('A time of day was expected here.')
	},
	toStored: (value) => Math.min(DAY_SECONDS - 1, Math.round(Number(value) * DAY_SECONDS)),
	fromStored: (stored) => Number(stored) / DAY_SECONDS
}
