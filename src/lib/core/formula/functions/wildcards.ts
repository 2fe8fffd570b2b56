/** Patterns with "?" for one character and "*" for any number of them; "~" before either means itself. No regard to case. */
import { textKey } from '../../text/key.ts'
import type { FunctionEntry } from '../../model/formula.ts'
import { family } from './define.ts'

const text = family('text')

/**
 * Where a pattern first fits, from a place on, both counted in characters from 0; undefined where it does not. Each part
 * between stars is looked for once from where the last one ended: no pattern takes longer than its length times the text's.
 */
export function findPattern(given: readonly string[], wanted: string, from: number): number | undefined {
	const text = given.map(textKey)
	const [first = [], ...rest] = segmentsOf([...wanted].map(textKey))
	for (let at = from; at + first.length <= text.length; at++) {
		if (!fitsAt(text, first, at)) continue
		let end: number | undefined = at + first.length
		for (const segment of rest) end = end === undefined ? undefined : endOf(text, segment, end)
		// A later start leaves less room for the rest.
		return end === undefined ? undefined : at
	}
	return undefined
}

/** A character as it is, or any. */
type Sign = string | typeof ANY
const ANY = Symbol('any character')

function segmentsOf(pattern: readonly string[]): readonly (readonly Sign[])[] {
	const segments: Sign[][] = [[]]
	for (let i = 0; i < pattern.length; i++) {
		const sign = pattern[i] ?? ''
		if (sign === '*') segments.push([])
		else if (sign === '~' && /^[?*~]$/.test(pattern[i + 1] ?? '')) segments.at(-1)?.push(pattern[++i] ?? '')
		else segments.at(-1)?.push(sign === '?' ? ANY : sign)
	}
	return segments
}

function fitsAt(text: readonly string[], segment: readonly Sign[], at: number): boolean {
	return segment.every((sign, i) => sign === ANY || text[at + i] === sign)
}

function endOf(text: readonly string[], segment: readonly Sign[], from: number): number | undefined {
	for (let at = from; at + segment.length <= text.length; at++)
		if (fitsAt(text, segment, at)) return at + segment.length
	return undefined
}

/** Whether a pattern stands in a criterion, so that it asks for more than equality. */
export function hasWildcards(wanted: string): boolean {
	return /[?*]/.test(wanted)
}

/** Whether a text as a whole fits a pattern: what the criteria of COUNTIF and its kin come to. */
export const FITS: FunctionEntry = text({
	name: 'FITS',
	parameters: [
		{ name: 'text', type: 'text' },
		{ name: 'pattern', type: 'text' }
	],
	result: 'yesno',
	doc: 'Whether the whole text fits a pattern with "?" and "*".',
	examples: [['FITS("NH-014"; "NH-*")', 'yes']],
	canFail: false,
	evaluate: (given, pattern) => fits([...textKey(given)], [...textKey(pattern)])
})

/** The text that a pattern looks for anywhere, where it is `*so*`: that is found much faster than a pattern is fitted. */
export function soughtAnywhere(pattern: string): string | undefined {
	// A tilde before any other character is read in two ways above and below; such a pattern is fitted.
	if (/~(?![?*~])/.test(pattern)) return undefined
	const [first, middle = [], last, ...more] = segmentsOf([...pattern])
	if (first?.length !== 0 || last?.length !== 0 || more.length > 0 || middle.length === 0) return undefined
	const letters = middle.filter((sign) => sign !== ANY)
	return letters.length === middle.length ? letters.join('') : undefined
}

/** Lazy stars in a pattern of a builder's own could take for ever; this goes back to the last star only. */
function fits(given: readonly string[], pattern: readonly string[]): boolean {
	let at = 0
	let next = 0
	let star = -1
	let mark = 0
	while (at < given.length) {
		const escaped = pattern[next] === '~' && next + 1 < pattern.length
		if (pattern[next] === '*') {
			star = next++
			mark = at
		} else if (escaped ? pattern[next + 1] === given[at] : pattern[next] === '?' || pattern[next] === given[at]) {
			next += escaped ? 2 : 1
			at++
		} else if (star >= 0) {
			next = star + 1
			at = ++mark
		} else return false
	}
	while (pattern[next] === '*') next++
	return next === pattern.length
}
