import { describe, expect, test } from 'vitest'
import { addDays, isoWeek, weekdayOf, toDayNumber } from './calendar.ts'
import { layOutSpans } from './lay-out-spans.ts'
import { keyOfDay, nameOfShown, readPeriod } from './shown-period.ts'

const on = (day: string, view: 'a month' | 'a week' | 'a timeline' = 'a month') => ({ day, view })

// Weeks at turns of the year as ISO 8601 counts them (the examples of its article on week dates, from memory).
test.each([
	['2009-W01', '2008-12-29', '2009-01-04'],
	['2009-W53', '2009-12-28', '2010-01-03'],
	['2020-W53', '2020-12-28', '2021-01-03'],
	['2026-W01', '2025-12-29', '2026-01-04'],
	['2026-W53', '2026-12-28', '2027-01-03']
])('week %s goes from %s to %s', (key, first, last) => {
	expect(readPeriod(key, on('2026-06-01'))).toMatchObject({ view: 'a week', key, first, last })
})

test.each([
	['2026-12', 'December 2026', '2026-11', '2027-01'],
	['2026-W53', 'Week 53 of 2026', '2026-W52', '2027-W01'],
	['2028-02.timeline', 'February 2028', '2028-01.timeline', '2028-03.timeline']
])('%s is %s, after %s and before %s', (key, name, before, after) => {
	const period = readPeriod(key, on('2000-01-01'))
	expect([nameOfShown(period), period.before, period.after]).toEqual([name, before, after])
})

test('a month stands in whole weeks, a timeline in its own days alone', () => {
	const { weeks } = readPeriod('2026-11', on('2026-11-30'))
	expect(weeks.map((week) => week.length)).toEqual([7, 7, 7, 7, 7, 7])
	expect([weeks[0]?.[0], weeks.at(-1)?.at(-1)]).toEqual(['2026-10-26', '2026-12-06'])
	expect(weeks.flat().every((day, i) => weekdayOf(toDayNumber(day)) === i % 7)).toBe(true)
	expect(readPeriod('2026-02.timeline', on('2026-11-30')).weeks.map((days) => days.length)).toEqual([28])
})

describe('a key that says no period shows that of today', () => {
	test.each([
		'',
		'2026-13',
		'2026-00',
		'2026-W54',
		'2025-W53',
		'2026-W00',
		'0000-01',
		'x',
		'2026-12-01',
		'2026-12.table'
	])('%j', (key) => {
		expect(readPeriod(key, on('2026-11-30', 'a week')).key).toBe('2026-W49')
	})
})

test('at the end of all dates there is no further period', () => {
	expect(readPeriod('9999-12', on('2026-11-30'))).toMatchObject({ after: '9999-12', last: '9999-12-31' })
})

test('each day lies in its own period', () => {
	for (let day = '2019-12-20'; day < '2022-01-20'; day = addDays(day, 1) ?? '9')
		for (const view of ['a month', 'a week', 'a timeline'] as const) {
			const period = readPeriod(keyOfDay(day, view), on('1999-01-01'))
			expect([period.view, period.first <= day && day <= period.last]).toEqual([view, true])
			if (view === 'a week') expect(nameOfShown(period)).toContain(`Week ${isoWeek(day).week} of`)
		}
})

describe('spans in a row of days', () => {
	const WEEK = Array.from({ length: 7 }, (_day, i) => addDays('2026-11-30', i) ?? '')
	const lay = (...spans: [string, string][]) =>
		layOutSpans(
			spans.map(([from, to]) => ({ from, to })),
			WEEK
		).map(({ at, lane, first, last, begins, ends }) => [at, lane, first, last, begins, ends])

	test('that overlap stand one under the other, and lanes are used again', () => {
		expect(lay(['2026-11-30', '2026-12-02'], ['2026-12-01', '2026-12-01'], ['2026-12-03', '2026-12-03'])).toEqual([
			[0, 0, 0, 2, true, true],
			[1, 1, 1, 1, true, true],
			[2, 0, 3, 3, true, true]
		])
	})

	test('that go on beyond it say so; those outside are left out', () => {
		expect(lay(['2026-11-01', '2026-12-31'], ['2026-11-01', '2026-11-29'], ['2026-12-07', '2026-12-08'])).toEqual([
			[0, 0, 0, 6, false, false]
		])
	})
})
