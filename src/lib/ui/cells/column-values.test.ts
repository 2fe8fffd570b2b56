/** A group of a column's values in words, and the filter that a press on it sets. */
import { describe, expect, test } from 'vitest'
import type { Groups } from '$lib/core/requests/rows.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { filterOf, nameOf } from './column-values.ts'

const shown = (type: ShownColumn['type'], by: Groups['by'] = 'value') => ({
	column: { id: 7, name: 'held', type } as ShownColumn,
	by
})
const group = (value: unknown, before?: number) =>
	({ value, rows: 3, ...(before !== undefined && { before }) }) as never
const equal = (text: string) => ({ column: 7, is: 'equal', text })

describe('a group', () => {
	test.each([
		[shown('text'), group('Bell'), 'Bell', equal('Bell')],
		[shown('text'), group(''), '(no name)', equal('')],
		[shown('whole number'), group(1200), '1,200', equal('1200')],
		[shown('whole number'), group(0, 50), '0 to under 50', undefined],
		[shown('date', 'month'), group('2026-03'), 'Mar 2026', { column: 7, is: 'contains', text: '2026-03' }],
		[shown('date', 'year'), group('2026'), '2026', { column: 7, is: 'contains', text: '2026' }],
		[shown('date'), group('2026-03-05'), '5 Mar 2026', equal('2026-03-05')],
		[shown('yes/no'), group(true), 'yes', equal('yes')],
		[shown('yes/no'), group(false), 'no', equal('no')],
		[shown('reference'), group({ id: 'abc', label: 'M-104' }), 'M-104', equal('M-104')]
	])('%#: in words, and as a filter', (of, value, words, filter) => {
		expect(nameOf(of, value)).toBe(words)
		expect(filterOf(of, value)).toEqual(filter)
	})

	test('that is hidden is found by no filter', () => {
		expect(filterOf(shown('text'), group({ hidden: true }))).toBeUndefined()
	})
})
