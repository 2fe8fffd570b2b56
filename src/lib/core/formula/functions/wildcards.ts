/** Patterns with "?" for one character and "*" for any number of them; "~" before either means itself. No regard to case. */
import { textKey } from '../../text/key.ts'
import type { FunctionEntry } from '../types.ts'
import { family } from './define.ts'

const text = family('text')

export function wildcardPattern(wanted: string): RegExp {
	return new RegExp(toSource(wanted), 'isu')
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

function toSource(wanted: string): string {
	// Runs of stars ask for the same as one, and would make the engine try every way to share the text among them.
	return wanted
		.replace(/\*+/g, '*')
		.replace(/~([?*~])|[?*]|[\\^$.|+()[\]{}/-]/g, (found: string, literal: string | undefined) => {
			if (literal !== undefined) return literal === '~' ? '~' : `\\${literal}`
			return found === '?' ? '.' : found === '*' ? '.*?' : found === '-' || found === '/' ? found : `\\${found}`
		})
}
