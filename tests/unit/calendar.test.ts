import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { checkDateRow, type DateRow } from '../check-values/dates.ts'
import {
	addDays,
	addMonths,
	addWorkdays,
	isIsoDate,
	toIsoDate,
	toDayNumber,
	weekdayOf
} from '$lib/core/schedule/calendar.ts'

/** Values computed by a calendar walk over a Temporal polyfill, with their clauses. Recurrences are not built yet. */
const { rows } = JSON.parse(readFileSync(new URL('../checks/dates.json', import.meta.url), 'utf8')) as {
	rows: DateRow[]
}

test.each(rows.filter((row) => row.kind !== 'rrule').map((row) => [row.id, row.kind, row] as const))(
	'against the table of dates: %s, %s',
	(_id, _kind, row) => expect(checkDateRow(row).short).toBeUndefined()
)

describe('against a plain walk, day by day', () => {
	test('working days over two years, both ways', () => {
		for (let days = -260; days <= 260; days += 7) {
			for (const start of ['2024-02-28', '2024-03-02', '2024-03-03', '2024-12-31']) {
				expect([start, days, addWorkdays(start, days)]).toEqual([start, days, walk(start, days)])
			}
		}
	})
})

function walk(start: string, days: number): string {
	let day = toDayNumber(start)
	const step = Math.sign(days)
	for (let left = Math.abs(days); left > 0;) {
		day += step
		if (new Date(day * 86_400_000).getUTCDay() % 6 !== 0) left--
	}
	return new Date(day * 86_400_000).toISOString().slice(0, 10)
}

describe('the edges', () => {
	test.each([
		['a month that runs over', toIsoDate(2024, 13, 1), '2025-01-01'],
		['day nought', toIsoDate(2024, 3, 0), '2024-02-29'],
		['before the year 1', toIsoDate(0, 12, 31), undefined],
		['after the year 9999', toIsoDate(9999, 12, 32), undefined],
		['the last day', addDays('9999-12-30', 1), '9999-12-31'],
		['past the last day', addDays('9999-12-31', 1), undefined],
		['the first day', addDays('0001-01-02', -1), '0001-01-01'],
		['before the first day', addDays('0001-01-01', -1), undefined],
		['months past the end', addMonths('9999-12-31', 1), undefined],
		['fractions are cut off', addDays('2026-11-23', 1.9), '2026-11-24']
	])('%s', (_what, got, wanted) => {
		expect(got).toBe(wanted)
	})
	test.each([
		['2024-02-29', true],
		['2023-02-29', false],
		['2026-2-3', false],
		['0000-01-01', false],
		['2026-11-23T00:00:00Z', false]
	])('%s is a date: %s', (text, wanted) => {
		expect(isIsoDate(text)).toBe(wanted)
	})
	test('ISO 8601: 2026-11-23 is a Monday, 1970-01-01 a Thursday', () => {
		expect([weekdayOf(toDayNumber('2026-11-23')), weekdayOf(0)]).toEqual([0, 3])
	})
})
