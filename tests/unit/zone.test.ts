import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { instantAt, localDate, localTime } from '$lib/core/schedule/zone.ts'
import { showValue } from '$lib/core/table/show-value.ts'
import { dateAndTime } from '$lib/core/table/kinds/date-and-time.ts'
import { TYPED } from '$lib/core/model/writing.ts'
import type { Column } from '$lib/core/model/table.ts'

interface Occurrence {
	readonly local: string
	readonly utc: string
}
interface DateRow {
	readonly id: string
	readonly kind: string
	readonly input: { readonly timezone?: string }
	readonly expected: readonly Occurrence[] | string
}

/** Occurrences across changes of the clock, worked out with a Temporal polyfill: local time as asked, and its instant. */
const { rows } = JSON.parse(readFileSync(new URL('../checks/dates.json', import.meta.url), 'utf8')) as {
	rows: DateRow[]
}
const occurrences = rows.flatMap(({ id, input, expected }) =>
	input.timezone && Array.isArray(expected)
		? (expected as Occurrence[])
				.filter((each) => typeof each === 'object' && each.local && each.utc)
				.map(({ local, utc }) => [id, local, input.timezone ?? '', utc] as const)
		: []
)

describe('a clock on the wall', () => {
	test('the table has occurrences to check', () => expect(occurrences.length).toBeGreaterThan(50))

	test.each(occurrences)('%s: %s in %s', (_id, local, zone, utc) => {
		const wall = local.length === 16 ? `${local}:00.000` : `${local.slice(0, 19)}.000`
		expect(instantAt(wall, zone)).toBe(new Date(utc).toISOString())
	})

	test.each([
		['summer', '2026-07-01T09:00:00.000', 'Europe/London', '2026-07-01T08:00:00.000Z'],
		['the hour that is left out in spring', '2026-03-29T01:30:00.000', 'Europe/London', '2026-03-29T01:30:00.000Z'],
		['the hour that comes twice in autumn', '2026-10-25T01:30:00.000', 'Europe/London', '2026-10-25T00:30:00.000Z'],
		['half an hour off', '2026-01-01T00:00:00.000', 'Asia/Kolkata', '2025-12-31T18:30:00.000Z']
	])('%s', (_name, wall, zone, instant) => expect(instantAt(wall, zone)).toBe(instant))

	test('there and back, every seven hours of a year', () => {
		for (let at = Date.UTC(2026, 0, 1); at < Date.UTC(2027, 0, 1); at += 7 * 3_600_000) {
			const instant = new Date(at).toISOString()
			const seconds = Math.round(localTime(instant, 'Australia/Lord_Howe') * 86_400)
			const clock = new Date(seconds * 1000).toISOString().slice(11, 23)
			const back = instantAt(`${localDate(instant, 'Australia/Lord_Howe')}T${clock}`, 'Australia/Lord_Howe')
			// Of a time that comes twice it is the first.
			expect([0, 1_800_000]).toContain(at - Date.parse(back))
		}
	})
})

test('an instant is written and shown by the workspace’s clock; one that says its zone is taken at its word', () => {
	const column: Column = { id: 1, name: 'seen', type: 'date and time', timeZone: 'Europe/London' }
	const read = (text: string) => {
		const reading = dateAndTime.read(text, column, TYPED)
		return reading.ok && reading.value !== null ? [reading.value, showValue(reading.value, column)] : reading
	}
	expect(read('1 Jul 2026 14:30')).toEqual(['2026-07-01T13:30:00.000Z', '1 Jul 2026 14:30'])
	expect(read('2026-07-01T14:30:00Z')).toEqual(['2026-07-01T14:30:00.000Z', '1 Jul 2026 15:30'])
	expect(read('2026-12-01 00:05')).toEqual(['2026-12-01T00:05:00.000Z', '1 Dec 2026 00:05'])
})
