/** The days on which nobody works, as a steward writes them: one a line, the date first, then what day it is. */
import type { Conventions } from '../model/writing.ts'
import { showDate } from '../table/show-times.ts'
import { parseDate } from '../table/kinds/date.ts'
import type { WorkspaceDocument } from './document.ts'

export type Holiday = NonNullable<WorkspaceDocument['holidays']>[number]

export type HolidayReading = { readonly holidays: readonly Holiday[] } | { readonly message: string }

/** In the order of the calendar, each day once; a line that begins with no date is said. */
export function parseHolidays(text: string, writing: Conventions): HolidayReading {
	const found = new Map<string, Holiday>()
	for (const line of text.split('\n').map((each) => each.trim())) {
		if (line === '') continue
		const read = firstDate(line, writing)
		if (!read)
			return {
				message: `"${line.slice(0, 60)}" begins with no date. Write a day on each line, such as 25 Dec 2026 Christmas Day.`
			}
		found.set(read.day, read)
	}
	return { holidays: [...found.values()].toSorted((one, other) => (one.day < other.day ? -1 : 1)) }
}

export function printHolidays(holidays: readonly Holiday[], writing: Conventions): string {
	return holidays.map(({ day, name }) => `${showDate(day, writing)} ${name}`.trim()).join('\n')
}

/** A date has up to three words. */
function firstDate(line: string, writing: Conventions): Holiday | undefined {
	const words = line.split(/\s+/)
	for (const many of [3, 1]) {
		const day = parseDate(words.slice(0, many).join(' '), writing)
		if (day !== undefined) return { day, name: words.slice(many).join(' ').slice(0, 80) }
	}
	return undefined
}
