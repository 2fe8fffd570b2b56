/** A few words that come again and again: one in a cell, or several. */
import { editDistance } from '../../text/nearest.ts'
import { textKey } from '../../text/key.ts'
import { partsOf } from '../../table/kinds/several-choices.ts'
import type { Doubt } from '../guess.ts'
import type { Attempt, Filled } from './attempt.ts'

/** "Chain; Shackle": cells that hold several of a few words which come again and again, with semicolons between. */
export const asSeveral: Attempt = (plain, filled) => {
	// One semicolon is a slip, or part of a sentence; a list has them again and again.
	const listed = filled.reduce((all, { text, count }) => all + (text.includes(';') ? count : 0), 0)
	if (listed < LEAST_LISTED) return undefined
	const words = new Map<string, { word: string; count: number }>()
	for (const { text, count } of filled) {
		for (const word of partsOf(text)) {
			const known = words.get(textKey(word))
			words.set(textKey(word), { word: known?.word ?? word, count: (known?.count ?? 0) + count })
		}
		if (words.size > MOST_CHOICES) return undefined
	}
	const all = [...words.values()]
	const times = all.reduce((total, { count }) => total + count, 0)
	if (all.length < 2 || times < all.length * 3 || all.some(({ word }) => word.length > 40)) return undefined
	return { ...plain, type: 'several choices', choices: all.map(({ word }) => word) }
}

/** A few words that come again and again. One that came once and nearly says another is likely a slip. */
export const asChoice: Attempt = (plain, filled) => {
	const merged = new Map<string, Filled>()
	for (const { text, count, rows, typed } of filled) {
		const key = textKey(text)
		const known = merged.get(key)
		if (known) merged.set(key, { ...known, count: known.count + count, rows: [...known.rows, ...rows] })
		else merged.set(key, { text, count, typed, rows: [...rows] })
	}
	const words = [...merged.values()]
	const count = words.reduce((all, each) => all + each.count, 0)
	if (words.some(({ text }) => text.length > 40) || words.length > 25) return undefined
	const repeated = count >= words.length * 4 && words.length <= 20
	const named = CHOICE_NAME.test(plain.name) && (count >= words.length * 1.5 || /country|gender|size/i.test(plain.name))
	if (words.length < 2 || (!repeated && !named)) return undefined
	const slips = words.flatMap((word) => findSlip(word, words))
	const choices = words
		.filter((word) => !slips.some((slip) => slip.text === word.text))
		.map((word) => mostUsed(word, filled))
	return { ...plain, type: 'choice', choices, doubts: slips }
}

const CHOICE_NAME =
	/\b(type|state|status|kind|category|priority|region|country|size|gender|class|grade|verdict|harbour)s?\b/i

const MOST_CHOICES = 20

const LEAST_LISTED = 2

function findSlip(word: Filled, words: readonly Filled[]): Extract<Doubt, { kind: 'spelling' }>[] {
	if (word.count > 2 || word.text.length < 4) return []
	const meant = words.find((other) => {
		const near = editDistance(textKey(other.text), textKey(word.text)) <= Math.max(1, Math.floor(word.text.length / 6))
		return other !== word && other.count >= word.count * 5 && near
	})
	return meant ? [{ kind: 'spelling', text: word.text, proposed: meant.text, rows: word.rows }] : []
}

/** Of several writings of one word, the one that stands there most often. */
function mostUsed(word: Filled, filled: readonly Filled[]): string {
	const same = filled.filter((each) => textKey(each.text) === textKey(word.text))
	return same.reduce(
		(best, each) => (each.count > best.count ? each : best),
		word === same[0] ? word : (same[0] ?? word)
	).text
}
