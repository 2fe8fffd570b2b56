/** What a screen holds, as it stands in an address or travels: anybody may have written it there, so it is read by its type. */
import type { Plain, Type } from '../model/formula.ts'
import { isIsoDate } from '../schedule/calendar.ts'

export const MOST_HELD_TEXT = 200

/** Blank where the text is nothing of the type. A row is none of these. */
export function readHeld(text: string, { kind }: Type): Plain {
	const given = text.trim()
	if (given === '') return null
	switch (kind) {
		case 'number':
			return Number.isFinite(Number(given)) ? Number(given) : null
		case 'date':
			return isIsoDate(given) ? given : null
		case 'yesno':
			return given === 'yes' ? true : given === 'no' ? false : null
		case 'text':
			return text.slice(0, MOST_HELD_TEXT)
		default:
			return null
	}
}

export function writeHeld(value: Plain): string {
	if (typeof value === 'boolean') return value ? 'yes' : 'no'
	return value === null ? '' : String(value).slice(0, MOST_HELD_TEXT)
}
