/** Where columns stand: worked by hand; ticks and nice ends as d3-scale documents them (`continuous.nice`, `continuous.ticks`). */
import { scaleLinear } from 'd3-scale'
import { describe, expect, test } from 'vitest'
import { layOut } from './columns.ts'

const parts = (...asked: Parameters<typeof layOut>) =>
	layOut(...asked).columns.map((column) => column.parts.map(({ series, from, to }) => [series, from, to]))

test('stacked, each part begins where the one before ends', () => {
	const laid = layOut(
		[
			[6, 2, 0],
			[10, null, 4]
		],
		'stacked'
	)
	// The ends are 0 and 14; nice for about four ticks they are 0 and 15.
	expect(laid.ticks).toEqual([0, 5, 10, 15].map((value) => ({ value, at: Number(((100 * value) / 15).toFixed(3)) })))
	expect(laid.columns[0]?.parts).toEqual([
		{ series: 0, from: 0, to: 40, value: 6 },
		{ series: 1, from: 40, to: 53.333, value: 2 }
	])
	expect(laid.columns.map(({ top }) => top)).toEqual([53.333, 93.333])
	expect(laid.foot).toBe(0)
})

test('side by side and as lines, each begins at nought', () => {
	for (const way of ['side by side', 'as lines'] as const)
		expect(
			parts(
				[
					[5, 10],
					[null, 2.5]
				],
				way
			)
		).toEqual([
			[
				[0, 0, 50],
				[1, 0, 100]
			],
			[[1, 0, 25]]
		])
})

test('as areas they are stacked, and run on where there is nothing', () => {
	const values = [
		[6, 2],
		[0, 4],
		[null, 8]
	]
	expect(parts(values, 'as areas')).toEqual([
		[
			[0, 0, 75],
			[1, 75, 100]
		],
		[
			[0, 0, 0],
			[1, 0, 50]
		],
		[
			[0, 0, 0],
			[1, 0, 100]
		]
	])
	expect(layOut(values, 'as areas').ticks).toEqual(layOut(values, 'stacked').ticks)
})

test('what is below nought hangs down from there', () => {
	const laid = layOut(
		[
			[3, -2],
			[-5, 1]
		],
		'stacked'
	)
	expect(laid.foot).toBeGreaterThan(0)
	for (const [column, value] of [
		[0, -2],
		[1, -5]
	] as const) {
		const part = laid.columns[column]?.parts.find((each) => each.value === value)
		expect([part?.to, (part?.from ?? 100) < laid.foot]).toEqual([laid.foot, true])
	}
})

test('shares of each column come to a hundred; of nothing there is none', () => {
	expect(
		parts(
			[
				[1, 3],
				[0, 0],
				[7, null]
			],
			'as shares'
		)
	).toEqual([
		[
			[0, 0, 25],
			[1, 25, 100]
		],
		[],
		[[0, 0, 100]]
	])
})

test('shares end at a hundred, though thirds add up to a little more', () => {
	const thirds = layOut([[1.1, 2.2, 3.3, 0.1]], 'as shares')
	expect(thirds.ticks.at(-1)).toEqual({ at: 100, value: 100 })
})

test.each([
	['nothing at all', []],
	['noughts alone', [[0], [0]]],
	['nothing measured', [[null], [null]]]
])('%s stands on a scale all the same', (_what, values) => {
	const laid = layOut(values, 'stacked')
	expect(laid.ticks.length).toBeGreaterThan(1)
	expect(laid.columns.every((column) => column.parts.length === 0)).toBe(true)
})

describe('its ticks are d3’s', () => {
	test.each([1, 7, 17, 99, 1234.5, 1e9, 0.004])('up to %d', (most) => {
		const scale = scaleLinear().domain([0, most]).nice(4)
		expect(layOut([[most]], 'stacked').ticks.map(({ value }) => value)).toEqual(scale.ticks(4))
	})
})
