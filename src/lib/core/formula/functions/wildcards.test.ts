import { expect, test } from 'vitest'
import { findPattern, soughtAnywhere } from './wildcards.ts'

test.each<[text: string, wanted: string, from: number, want: number | undefined]>([
	['abcd', 'b?d', 0, 1],
	['abcd', 'B?D', 0, 1],
	['abcd', '*d', 0, 0],
	['abcabc', 'a*c', 1, 3],
	['what?', '~?', 0, 4],
	['a*b', '~*', 0, 1],
	['a~b', '~b', 0, 1],
	['abc', 'c*a', 0, undefined],
	['', '', 0, 0],
	['Straße ß', 'ß', 5, 7]
])('in %s, %s from %d', (text, wanted, from, want) => {
	expect(findPattern([...text], wanted, from)).toBe(want)
})

test('a pattern made to swell does not: it takes its length times the text, not a power of it', () => {
	const text = [...'a'.repeat(3_000)]
	expect(findPattern(text, `${'a*'.repeat(40)}b`, 0)).toBeUndefined()
})

test.each<[pattern: string, want: string | undefined]>([
	['*quay*', 'quay'],
	['*Varrow Quay*', 'Varrow Quay'],
	['*a~*b*', 'a*b'],
	['*~?*', '?'],
	['*a*b*', undefined],
	['*a?b*', undefined],
	['quay*', undefined],
	['*quay', undefined],
	['*', undefined],
	['**', undefined],
	['*a~b*', undefined]
])('%s looks anywhere for %s', (pattern, want) => {
	expect(soughtAnywhere(pattern)).toBe(want)
})
