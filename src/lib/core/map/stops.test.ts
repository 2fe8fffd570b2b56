import { describe, expect, test } from 'vitest'
import { inOrder, legsOf, renumbered, type StopTo } from './stops.ts'

const stops = [
	{ row: 'c', number: 3 },
	{ row: 'a', number: 1 },
	{ row: 'x', number: null },
	{ row: 'b', number: 2 }
]
/** What the order is once the changes are made. */
const after = (row: string, to: StopTo) => {
	const changed = new Map(renumbered(stops, row, to)?.map((stop) => [stop.row, stop.number]))
	return inOrder(
		stops.map((stop) => ({ ...stop, ...(changed.has(stop.row) ? { number: changed.get(stop.row) ?? null } : {}) }))
	)
		.map((stop) => `${stop.number}${stop.row}`)
		.join(' ')
}

describe('moving', () => {
	test.each<[string, string, StopTo, string]>([
		['to the front', 'c', { before: 'a' }, '1c 2a 3b'],
		['between two', 'a', { before: 'c' }, '1b 2a 3c'],
		['to the end', 'a', 'last', '1b 2c 3a'],
		['to where it is', 'b', { before: 'c' }, '1a 2b 3c'],
		['in, at the end', 'x', 'last', '1a 2b 3c 4x'],
		['in, at the front', 'x', { before: 'a' }, '1x 2a 3b 4c'],
		['out', 'b', 'out', '1a 2c']
	])('%s', (_name, row, to, expected) => {
		expect(after(row, to)).toBe(expected)
	})

	test('changes no row whose number stays', () => {
		expect(renumbered(stops, 'b', { before: 'c' })).toEqual([])
		expect(renumbered(stops, 'c', { before: 'b' })).toEqual([
			{ row: 'c', number: 2 },
			{ row: 'b', number: 3 }
		])
	})

	test('numbers that are the same, or leave gaps, become a row of numbers', () => {
		const odd = [
			{ row: 'a', number: 7 },
			{ row: 'b', number: 7 },
			{ row: 'c', number: -2 }
		]
		expect(renumbered(odd, 'a', 'last')).toEqual([
			{ row: 'c', number: 1 },
			{ row: 'b', number: 2 },
			{ row: 'a', number: 3 }
		])
	})

	test('before a row that is not in the order is nowhere', () => {
		expect(renumbered(stops, 'a', { before: 'x' })).toBeUndefined()
		expect(renumbered(stops, 'a', { before: 'a' })).toBeUndefined()
	})
})

test('legs are as long as the way between two places', () => {
	// A minute of arc along a meridian is a nautical mile: 1,852 m by definition, 1,853.2 m on a sphere of mean radius.
	const legs = legsOf([50, 50 + 1 / 60, 50].map((latitude) => ({ latitude, longitude: -4 })))
	expect(legs.map(Math.round)).toEqual([0, 1853, 1853])
	expect(legsOf([])).toEqual([])
})
