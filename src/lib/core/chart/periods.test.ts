/** Periods in a row. Weeks by ISO 8601: that 2026 has 53 of them, and 2020 had, is the standard's own rule (years that begin on a Thursday). */
import { describe, expect, test } from 'vitest'
import type { Step } from '../query/measure.ts'
import { beginsYear, firstDayOf, nameOfPeriod, periodsBetween } from './periods.ts'

test.each<[Step, string[], string[]]>([
	[
		'months',
		['2026-11', '2026-02', '2025-12'],
		[
			'2025-12',
			'2026-01',
			'2026-02',
			'2026-03',
			'2026-04',
			'2026-05',
			'2026-06',
			'2026-07',
			'2026-08',
			'2026-09',
			'2026-10',
			'2026-11'
		]
	],
	['quarters', ['2026-1', '2025-3'], ['2025-3', '2025-4', '2026-1']],
	['years', ['2024', '2026'], ['2024', '2025', '2026']],
	['weeks', ['2026-12-21', '2027-01-04'], ['2026-12-21', '2026-12-28', '2027-01-04']],
	['days', ['2024-02-28', '2024-03-01'], ['2024-02-28', '2024-02-29', '2024-03-01']],
	['days', ['2026-01-01'], ['2026-01-01']],
	['months', [], []]
])('%s from %j are %j', (step, keys, between) => {
	expect(periodsBetween(keys, step, 99)).toEqual(between)
})

test('of too many the latest stand there', () => {
	expect(periodsBetween(['2000-01', '2026-11'], 'months', 3)).toEqual(['2026-09', '2026-10', '2026-11'])
})

test.each<[string, Step, boolean, string, string]>([
	['2026-03', 'months', true, 'Mar ’26', '2026-03-01'],
	['2026-03', 'months', false, 'Mar', '2026-03-01'],
	['2026-4', 'quarters', true, 'Q4 ’26', '2026-10-01'],
	['2026', 'years', true, '2026', '2026-01-01'],
	['2026-12-28', 'weeks', false, 'W53', '2026-12-28'],
	['2027-01-04', 'weeks', false, 'W1', '2027-01-04'],
	['2020-12-28', 'weeks', false, 'W53', '2020-12-28'],
	['2026-11-05', 'days', false, '5 Nov', '2026-11-05']
])('%s in %s is called %s', (period, step, withYear, name, first) => {
	expect(nameOfPeriod(period, step, withYear)).toBe(name)
	expect(firstDayOf(period, step)).toBe(first)
})

describe('the year is said', () => {
	test.each([
		['2026-01', undefined, true],
		['2026-02', '2026-01', false],
		['2026-01', '2025-12', true]
	])('of %s after %s: %s', (period, before, said) => {
		expect(beginsYear(period, before)).toBe(said)
	})
})
