/** Bands of numbers: against d3-scale's thresholds, and by hand where binary fractions bite. */
import { scaleThreshold } from 'd3-scale'
import Database from 'better-sqlite3'
import { describe, expect, test } from 'vitest'
import { raw } from '$lib/core/sql/sql.ts'
import { bandsBetween, inBands, startOfBand } from '$lib/core/query/bands.ts'

const db = new Database(':memory:')
const bandOf = (value: number, width: number) => {
	const { text, params } = inBands(raw(String(value)), width)
	return db
		.prepare(`SELECT ${text}`)
		.pluck()
		.get(...params)
}

test.each([
	[0, 5, 0],
	[4.99, 5, 0],
	[5, 5, 1],
	[-0.1, 5, -1],
	[-5, 5, -1],
	// 0.3 / 0.1 is 2.9999999999999996.
	[0.3, 0.1, 3],
	[0.6, 0.2, 3],
	[0.7, 0.1, 7],
	[1.15, 0.05, 23],
	[1e12, 1e11, 10]
])('%d in bands of %d lies in the one of number %d', (value, width, band) => {
	expect(bandOf(value, width)).toBe(band)
	expect(startOfBand(band, width)).toBeLessThanOrEqual(value)
	expect(startOfBand(band + 1, width)).toBeGreaterThan(value)
})

test.each([
	[3, 0.1, 0.3],
	[7, 0.1, 0.7],
	[23, 0.05, 1.15],
	[-3, 0.2, -0.6],
	[3, 2.5, 7.5]
])('band %d of those %d wide begins at %d', (band, width, start) => {
	expect(startOfBand(band, width)).toBe(start)
})

describe('each value lies where d3 puts it between the same thresholds', () => {
	test.each([0.1, 0.5, 2, 7])('%d wide', (width) => {
		const values = Array.from({ length: 500 }, (_each, i) => ((i * 7919) % 1000) / 37)
		const bands = Array.from({ length: 300 }, (_each, i) => i)
		const scale = scaleThreshold<number, number>()
			.domain(bands.slice(1).map((band) => startOfBand(band, width)))
			.range(bands)
		expect(values.map((value) => bandOf(value, width))).toEqual(values.map((value) => scale(value)))
	})
})

test.each([
	[[3, 0, 1], 9, [0, 1, 2, 3]],
	[[-2, 1], 9, [-2, -1, 0, 1]],
	[[0, 100], 3, [0, 1, 2]],
	[[], 3, []]
])('those from %j, at most %d, are %j', (bands, most, all) => {
	expect(bandsBetween(bands, most)).toEqual(all)
})
