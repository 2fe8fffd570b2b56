import { textKey } from '../../text/key.ts'
import { STARTERS } from './all.ts'
import type { Starter } from './starter.ts'

/** Those that fit what somebody types, the likeliest first; all of them, for nothing. */
export function findStarters(typed: string): readonly Starter[] {
	const sought = textKey(typed).split(/\s+/).filter(Boolean)
	const fits = ({ name, about, words }: Starter) => {
		const text = textKey(`${name} ${about} ${words}`)
		return sought.filter((word) => text.includes(word.replace(/s$/, ''))).length
	}
	const found = STARTERS.map((starter) => ({ starter, fit: fits(starter) }))
	return found
		.filter(({ fit }) => sought.length === 0 || fit > 0)
		.toSorted((one, other) => other.fit - one.fit)
		.map(({ starter }) => starter)
}
