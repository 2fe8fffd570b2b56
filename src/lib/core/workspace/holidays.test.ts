import { expect, test } from 'vitest'
import { conventionsOf } from '../table/conventions.ts'
import { parseHolidays, printHolidays } from './holidays.ts'

const BRITISH = conventionsOf('en-GB')

test('a day a line, in any way that dates are typed, in the order of the calendar and each once', () => {
	// England's bank holidays of the end of 2026 (gov.uk): Boxing Day falls on a Saturday.
	const text =
		'1 Jan 2027 New Year’s Day\n\n 28/12/2026  Boxing Day (substitute)\n2026-12-25 Christmas Day\n25 Dec 2026 Christmas'
	const read = parseHolidays(text, BRITISH)
	expect(read).toEqual({
		holidays: [
			{ day: '2026-12-25', name: 'Christmas' },
			{ day: '2026-12-28', name: 'Boxing Day (substitute)' },
			{ day: '2027-01-01', name: 'New Year’s Day' }
		]
	})
	const said = 'holidays' in read ? printHolidays(read.holidays, BRITISH) : ''
	expect(parseHolidays(said, BRITISH)).toEqual(read)
})

test.each(['Christmas', '31 Feb 2026', '12 of May'])('"%s" is said to begin with no date', (line) => {
	expect(parseHolidays(line, BRITISH)).toEqual({ message: expect.stringContaining(`"${line}" begins with no date`) })
})
