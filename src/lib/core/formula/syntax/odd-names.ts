/**
 * Names of columns and of sets that are more than words and whole numbers: `Keeper e-mail`, `Price (net)`, `24 h rate`. They
 * may stand in a formula without quotes, as people read them in a heading. One with `and`, `or`, `in` or `not` in it is no such
 * name: it can be read in two ways, and the writer is asked.
 */
import type { Catalogue } from '../../model/table.ts'
import { textKey } from '../../text/key.ts'
import { RESERVED, tokenize } from './tokens.ts'

const KNOWN = new WeakMap<Catalogue, readonly string[]>()

/** Those of a catalogue that stand somewhere in a text, the longest first. */
export function oddNamesIn(source: string, catalogue: Catalogue): readonly string[] {
	const known = KNOWN.get(catalogue) ?? findOddNames(catalogue)
	KNOWN.set(catalogue, known)
	if (known.length === 0) return known
	const text = textKey(source)
	return known.filter((name) => text.includes(textKey(name)))
}

/** Whether a name stands by itself, without quotes, only as what a table has of that name. */
export function isOddName(name: string): boolean {
	if (/['"\n]/.test(name) || name.trim() !== name) return false
	const { tokens, issues } = tokenize(name)
	const isPlain = issues.length === 0 && tokens.length === 2 && tokens[0]?.kind === 'name' && tokens[0].text === name
	const words = name.toLowerCase().split(/[^\p{L}\p{M}\p{N}_]+/u)
	// What begins like a number, and is one, stays one.
	return !isPlain && /\p{L}/u.test(name) && !words.some((word) => RESERVED.has(word))
}

function findOddNames({ tables }: Catalogue): readonly string[] {
	const names = [...tables.values()].flatMap(({ columns, backReferences }) =>
		[...columns, ...backReferences].map(({ name }) => name)
	)
	return [...new Set(names)].filter(isOddName).sort((a, b) => b.length - a.length)
}
