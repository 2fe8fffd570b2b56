import { describe, expect, test } from 'vitest'
import { inferColumn } from './infer.ts'
import { proposeKeys } from './propose-keys.ts'

function keysOf(headings: readonly string[], rows: readonly (readonly string[])[]): string[][] {
	const columns = headings.map((heading, i) =>
		inferColumn(
			heading,
			rows.map((row) => row[i] ?? ''),
			2
		)
	)
	return proposeKeys(columns, rows).map((key) => key.map((i) => headings[i] ?? ''))
}

describe('the rows of a file are told apart', () => {
	test('by one column, a code before a count, a measure never', () => {
		const rows = Array.from({ length: 12 }, (_row, i) => [`${i * 3 + 1}`, `B-${i}`, `${i}.25`, `${i + 1}`])
		expect(keysOf(['Count', 'Code', 'Depth', 'No.'], rows)).toEqual([['Code'], ['No.'], ['Count']])
	})

	test('by as few together as do, names and days before counts', () => {
		const rows = ['North', 'South'].flatMap((berth, b) =>
			['2026-03-01', '2026-03-02', '2026-03-03'].map((day, d) => [`${b * 3 + d + 10}.5`, day, berth, `${d}`])
		)
		expect(keysOf(['Depth', 'Day', 'Berth', 'Boats'], rows)).toEqual([
			['Berth', 'Day'],
			['Berth', 'Boats']
		])
	})

	test('by none where a cell is blank, rows are the same, or there are none', () => {
		expect(keysOf(['Code'], [['A'], ['']])).toEqual([])
		expect(keysOf(['Code'], [['A'], ['a']])).toEqual([])
		expect(keysOf(['Code'], [])).toEqual([])
	})
})
