/**
 * Numbers taken together in bands of one width: from a multiple of it up to, and without, the next. That of `k` goes from
 * `k × width`, so every band is known by a whole number, and none depends on which rows there are.
 */
import { param, sql, type Sql } from '../sql/sql.ts'

/** The number of the band in which each value lies. */
export function inBands(key: Sql, width: number): Sql {
	const times = timesOf(width)
	return times === undefined
		? sql`CAST(floor(${key} / ${param(width)}) AS INTEGER)`
		: sql`CAST(floor(${key} * ${param(times)}) AS INTEGER)`
}

/** Where a band begins, as people write it: 0.3 and not 0.30000000000000004. */
export function startOfBand(band: number, width: number): number {
	const times = timesOf(width)
	return times === undefined ? Number((band * width).toPrecision(15)) : band / times
}

/** The bands from the first to the last, those without a row among them; of more than `most` the first ones. */
export function bandsBetween(bands: readonly number[], most: number): readonly number[] {
	if (bands.length === 0) return []
	const first = Math.min(...bands)
	const count = Math.min(Math.max(...bands) - first + 1, most)
	return Array.from({ length: count }, (_each, i) => first + i)
}

/** A width that people count in (1, 2 or 5 times a power of ten), so that about so many steps span the values. */
export function stepWidth(least: number, most: number, about: number): number {
	const rough = (most - least) / about
	if (!(rough > 0) || !Number.isFinite(rough)) return 1
	const power = 10 ** Math.floor(Math.log10(rough))
	const times = [1, 2, 5, 10].find((each) => each * power >= rough) ?? 10
	return times * power
}

/** Of a fraction of one its inverse, where that is whole: to multiply by ten is exact where to divide by 0.1 is not. */
function timesOf(width: number): number | undefined {
	const times = Number((1 / width).toPrecision(12))
	return width < 1 && Number.isInteger(times) ? times : undefined
}
