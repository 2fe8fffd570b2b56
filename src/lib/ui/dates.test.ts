/** Days as a browser has them, and the weeks in which they are chosen. */
import { describe, expect, test } from 'vitest'
import { weeksOf } from '$lib/core/schedule/calendar.ts'
import { todayHere } from './dates.ts'

test('today is the day of the browser, not of Greenwich', () => {
	expect(todayHere(new Date(2026, 0, 5, 0, 1))).toBe('2026-01-05')
	expect(todayHere(new Date(2026, 10, 30, 23, 59))).toBe('2026-11-30')
})

describe('the weeks of a month', () => {
	// By the calendar on the wall: 1 November 2026 is a Sunday, 1 February 2027 a Monday, 29 February 2024 a Thursday.
	test.each([
		['2026-11', '2026-10-26', '2026-12-06', 6],
		['2027-02', '2027-02-01', '2027-02-28', 4],
		['2024-02', '2024-01-29', '2024-03-03', 5],
		['2026-12', '2026-11-30', '2027-01-03', 5]
	])('%s goes from %s to %s in %d', (month, first, last, count) => {
		const weeks = weeksOf(month)
		expect([weeks[0]?.[0], weeks.at(-1)?.[6], weeks.length]).toEqual([first, last, count])
		expect(weeks.every((week) => week.length === 7)).toBe(true)
		expect(new Set(weeks.flat()).size).toBe(count * 7)
	})
})
