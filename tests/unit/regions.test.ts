/** Public holidays of a region, held against what its government publishes (from memory, marked so). */
import { describe, expect, test } from 'vitest'
import { holidaysByRegion } from '$lib/server/structure/holidays-by-region.ts'

describe('public holidays', () => {
	test('of England in 2026, as its government lists them (from memory)', () => {
		const days = holidaysByRegion('england', [2026]).map(({ day }) => day)
		const listed = ['01-01', '04-03', '04-06', '05-04', '05-25', '08-31', '12-25', '12-28'].map((day) => `2026-${day}`)
		expect(days).toEqual(expect.arrayContaining(listed))
	})

	test('of a country, for several years', () => {
		const days = holidaysByRegion('Portugal', [2026, 2027])
		expect(days).toContainEqual({ day: '2026-12-25', name: 'Christmas Day' })
		expect(days.some(({ day }) => day === '2027-12-25')).toBe(true)
	})

	test.each([
		['Engalnd', 'No country, and no part of one, is known as Engalnd. Did you mean England?'],
		['', 'Say of which country']
	])('of "%s" there are none, which is said', (region, says) => {
		expect(() => holidaysByRegion(region, [2026])).toThrow(says)
	})
})
