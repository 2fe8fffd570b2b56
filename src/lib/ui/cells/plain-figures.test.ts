import { expect, test } from 'vitest'
import { conventionsOf } from '$lib/core/table/conventions.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { plainFigures, writtenFigures } from './plain-figures.ts'

const german = conventionsOf('de-DE')
const column = (type: ShownColumn['type'], more: object = {}): ShownColumn => ({ id: 1, name: 'x', type, ...more })

test.each([
	[column('decimal', { writing: german }), '1.234,5', '1234.5'],
	[column('decimal', { writing: german }), '1,234', '1.234'],
	[column('percent', { writing: german }), '12,5%', '12.5%'],
	[column('computed', { shows: 'number', writing: german }), '0,25', '0.25'],
	[column('decimal', { writing: german }), 'viel', 'viel'],
	[column('decimal', { writing: german }), '', ''],
	[column('text', { writing: german }), '1.234', '1.234'],
	[column('decimal'), '1,234', '1,234']
])('of %j %s travels as %s', (of, typed, plain) => {
	expect(plainFigures(of, typed)).toBe(plain)
	expect(plainFigures(of, writtenFigures(of, plain))).toBe(plain)
})
