import { expect, test } from 'vitest'
import { partsOfText } from './colours.ts'

test.each([
	['next due < TODAY() + 7', ['name next due', 'sign <', 'function TODAY', 'sign (', 'sign )', 'sign +', 'number 7']],
	['not me.senior', ['word not', 'word me', 'sign .', 'name senior']],
	[`IF('and' = "x"; 1)`, ['function IF', 'sign (', `name 'and'`, 'sign =', 'text "x"', 'sign ;', 'number 1', 'sign )']],
	['NOT(a)', ['function NOT', 'sign (', 'name a', 'sign )']],
	['depth > "', ['name depth', 'sign >']],
	['', []]
])('%s', (source, expected) => {
	expect(partsOfText(source).map(({ kind, from, to }) => `${kind} ${source.slice(from, to)}`)).toEqual(expected)
})
