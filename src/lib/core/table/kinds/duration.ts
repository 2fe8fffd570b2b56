import { TYPED } from '../../model/writing.ts'
import { read, refuse, type ColumnKind } from './kind.ts'

const DAY_SECONDS = 86_400
/** A thousand years: what is longer is a slip. */
const MOST_DAYS = 365_250

/** A span of time, to the second. Its value is a number of days, as formulas reckon (OpenFormula 4.3.2, from memory). */
export const duration: ColumnKind = {
	name: 'duration',
	read: (text) => {
		const days = parseDuration(text)
		return days === undefined ? refuse(`"${text}" is no span of time. Write it like 1 h 30 min, or 1:30.`) : read(days)
	},
	check: (value, column) => {
		if (typeof value === 'string') return duration.read(value.trim(), column, TYPED)
		const fits = typeof value === 'number' && Math.abs(value) <= MOST_DAYS
		return fits ? read(value) : refuse('A span of time was expected here.')
	},
	toStored: (value) => Math.round(Number(value) * DAY_SECONDS),
	fromStored: (stored) => Number(stored) / DAY_SECONDS
}

const ISO = /^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/i
const CLOCK = /^(\d{1,5}):([0-5]\d)(?::([0-5]\d))?$/
const PART = /(\d+(?:[.,]\d+)?)\s*(days?|d|hours?|hrs?|h|minutes?|mins?|min|m|seconds?|secs?|sec|s)\b\.?,?\s*/giy

/** Days, from `1 h 30 min`, `1h30`, `90 min`, `1:30` (hours and minutes) or ISO 8601 (`PT1H30M`). */
export function parseDuration(given: string): number | undefined {
	const text = given.trim()
	const bare = text.replace(/^[-−]\s*/, '')
	const seconds = fromIso(bare) ?? fromClock(bare) ?? fromWords(bare)
	if (seconds === undefined || seconds > MOST_DAYS * DAY_SECONDS) return undefined
	return (bare === text ? seconds : -seconds) / DAY_SECONDS
}

function fromIso(text: string): number | undefined {
	const match = ISO.exec(text)
	if (!match || text.length < 3 || /t$/i.test(text)) return undefined
	const [days = 0, hours = 0, minutes = 0, seconds = 0] = match.slice(1).map((part) => Number(part ?? 0))
	return days * DAY_SECONDS + hours * 3600 + minutes * 60 + seconds
}

function fromClock(text: string): number | undefined {
	const [, hours, minutes, seconds = '0'] = CLOCK.exec(text) ?? []
	return hours === undefined ? undefined : Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds)
}

function fromWords(text: string): number | undefined {
	PART.lastIndex = 0
	let seconds = 0
	let at = 0
	// A number right after a unit needs no space: 1h30m.
	const spaced = text.replace(/([a-z])(?=\d)/gi, '$1 ')
	for (;;) {
		PART.lastIndex = at
		const match = PART.exec(spaced)
		if (!match) break
		seconds += Number((match[1] ?? '').replace(',', '.')) * unitSeconds(match[2] ?? '')
		at = PART.lastIndex
	}
	return at > 0 && at === spaced.length ? seconds : undefined
}

function unitSeconds(unit: string): number {
	switch (unit[0]?.toLowerCase()) {
		case 'd':
			return DAY_SECONDS
		case 'h':
			return 3600
		case 'm':
			return 60
		default:
			return 1
	}
}
