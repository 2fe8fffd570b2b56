import { expect, test } from 'vitest'
import type { Type } from '../model/formula.ts'
import { MOST_HELD_TEXT, readHeld, writeHeld } from './held-text.ts'

test.each<[string, Type['kind'], unknown]>([
	['3', 'number', 3],
	[' -2.5 ', 'number', -2.5],
	['three', 'number', null],
	['1e999', 'number', null],
	['2026-11-29', 'date', '2026-11-29'],
	['29/11/2026', 'date', null],
	['2026-02-30', 'date', null],
	['yes', 'yesno', true],
	['no', 'yesno', false],
	['true', 'yesno', null],
	['  ', 'text', null],
	[' rope ', 'text', ' rope '],
	['x', 'rows', null],
	['x', 'datetime', null]
])('"%s" as a %s', (text, kind, value) => {
	// Only the kind is looked at.
	expect(readHeld(text, { kind } as Type)).toBe(value)
})

test('a long text is cut where it is read and where it is written', () => {
	const long = 'x'.repeat(MOST_HELD_TEXT + 50)
	expect(readHeld(long, { kind: 'text' })).toHaveLength(MOST_HELD_TEXT)
	expect(writeHeld(long)).toHaveLength(MOST_HELD_TEXT)
})

test.each([
	[true, 'yes'],
	[false, 'no'],
	[null, ''],
	[2.5, '2.5'],
	['2026-11-29', '2026-11-29']
])('%s is written as "%s", and comes back', (value, text) => {
	expect(writeHeld(value)).toBe(text)
})
