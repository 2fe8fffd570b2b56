/** Days as a year planner has them: worked by hand; depths by method R-7 of quantiles, which d3 documents as its own. */
import { expect, test } from 'vitest'
import { layOutDays } from './days.ts'

const shown = (values: Record<string, number>, most = 12) => layOutDays(new Map(Object.entries(values)), most)

test('every month from the first day to the last has its row, with as many days as it has', () => {
	const { months } = shown({ '2023-12-31': 2, '2024-03-01': 1 })
	expect(months.map(({ month, days }) => [month, days.length])).toEqual([
		['2023-12', 31],
		['2024-01', 31],
		// A leap year.
		['2024-02', 29],
		['2024-03', 31]
	])
	// The first of January 2024 was a Monday.
	expect(months[1]?.days.slice(0, 8).map(({ isMonday }) => isMonday)).toEqual([true, ...Array(6).fill(false), true]) // prettier-ignore
})

test('of more months than are shown the last ones are', () => {
	expect(shown({ '2020-01-01': 5, '2026-11-30': 1 }, 3).months.map(({ month }) => month)).toEqual([
		'2026-09',
		'2026-10',
		'2026-11'
	])
})

test('depths are quarters of the days that hold anything', () => {
	const values = [1, 2, 3, 4, 5, 6, 7, 80]
	const { months, depths } = shown(Object.fromEntries(values.map((value, i) => [`2026-11-0${i + 1}`, value])))
	// R-7 at a quarter of eight values: 0.25 × 7 = 1.75 places after the first, so 2 + 0.75 × (3 - 2).
	expect(depths).toEqual([2.75, 4.5, 6.25, 80].map((upTo, i) => ({ depth: i + 1, upTo })))
	expect(months[0]?.days.slice(0, 9).map(({ depth }) => depth)).toEqual([1, 1, 2, 2, 3, 3, 4, 4, 0])
})

test.each([
	['one value', { '2026-11-01': 4, '2026-11-02': 4 }, [{ depth: 4, upTo: 4 }]],
	['two values', { '2026-11-01': 1, '2026-11-02': 1, '2026-11-03': 1, '2026-11-04': 1, '2026-11-05': 2 }, [{ depth: 2, upTo: 1 }, { depth: 4, upTo: 2 }]] // prettier-ignore
])('of %s as many depths are told apart, as far apart as they can be', (_what, values, depths) => {
	expect(shown(values).depths).toEqual(depths)
})

test.each([
	['no day', {}],
	['noughts alone', { '2026-11-01': 0 }]
])('%s: no month', (_what, values) => {
	expect(shown(values)).toEqual({ months: [], depths: [] })
})
