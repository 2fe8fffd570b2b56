/** Dots over two scales: ends and ticks as d3-scale documents `nice` and `ticks`; areas worked by hand. */
import { expect, test } from 'vitest'
import { layOutDots } from './dots.ts'

test('they stand between the nice ends of both scales', () => {
	const { across, up, dots } = layOutDots([
		{ across: 1.3, up: 10, rows: 1 },
		{ across: 8.7, up: 47, rows: 1 }
	])
	expect([across[0], across.at(-1)]).toEqual([{ at: 0, value: 0 }, { at: 100, value: 10 }]) // prettier-ignore
	expect(up.map(({ value }) => value)).toEqual([10, 20, 30, 40, 50])
	expect(dots).toEqual([
		{ x: 13, y: 0, radius: 4 },
		{ x: 87, y: 92.5, radius: 4 }
	])
})

test('a dot for four times the rows is twice as wide', () => {
	const { dots } = layOutDots([4, 1, 9].map((rows) => ({ across: rows, up: 0, rows })))
	expect(dots.map(({ radius }) => radius)).toEqual([8, 4, 12])
})

test('none is too small to be pressed, nor wider than its neighbours have room', () => {
	const { dots } = layOutDots([1, 10_000].map((rows) => ({ across: rows, up: 0, rows })))
	expect(dots.map(({ radius }) => radius)).toEqual([3, 14])
})

test.each([
	['no dot', []],
	['one dot', [{ across: 5, up: 5, rows: 1 }]]
])('%s has scales all the same', (_what, dots) => {
	const laid = layOutDots(dots)
	expect(laid.across.length).toBeGreaterThan(1)
	expect(laid.dots.every(({ x, y }) => x === 50 && y === 50)).toBe(true)
})
