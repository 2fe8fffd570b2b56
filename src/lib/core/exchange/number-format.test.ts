import { describe, expect, test } from 'vitest'
import { numberCellText } from './cell-text.ts'
import { builtInFormat, readFormat, type CellFormat } from './number-format.ts'

/** Codes as office programs and libraries write them; those with `[$…]` and `_-` were read out of files of LibreOffice 7.4. */
const CODES: readonly [code: string, format: CellFormat][] = [
	['General', { kind: 'number' }],
	['0', { kind: 'number' }],
	['#,##0', { kind: 'number' }],
	['0.0', { kind: 'number', places: 1 }],
	['#,##0.00', { kind: 'number', places: 2 }],
	['# ?/?', { kind: 'number' }],
	['0.00E+00', { kind: 'number' }],
	['@', { kind: 'number' }],
	['000', { kind: 'padded', digits: 3 }],
	['0%', { kind: 'percent' }],
	['0.##%', { kind: 'percent' }],
	['£#,##0.00', { kind: 'money', sign: '£' }],
	['"£"#,##0.00', { kind: 'money', sign: '£' }],
	['[$-809]\\£#,##0.00', { kind: 'money', sign: '£' }],
	['#,##0.00 [$€-1]', { kind: 'money', sign: '€' }],
	['[$CHF] #,##0.00', { kind: 'money', sign: 'CHF' }],
	['#,##0.00" NOK"', { kind: 'money', sign: 'NOK' }],
	['_-£* #,##0.00_-;-£* #,##0.00_-;_-£* "-"??_-;_-@_-', { kind: 'money', sign: '£' }],
	['dd/mm/yyyy', { kind: 'date' }],
	['[$-809]d\\ mmm\\ yyyy', { kind: 'date' }],
	['mmm yy', { kind: 'date' }],
	['dddd d mmmm yyyy', { kind: 'date' }],
	['yyyy-mm-dd hh:mm:ss', { kind: 'date' }],
	['hh:mm', { kind: 'clock' }],
	['h:mm AM/PM', { kind: 'clock' }],
	['mm:ss.0', { kind: 'clock' }],
	['[h]:mm', { kind: 'span' }],
	['[$-809][hh]:mm', { kind: 'span' }],
	['[mm]:ss', { kind: 'span' }],
	['[Red]0.00;[Blue]-0.00', { kind: 'number', places: 2 }],
	['0 "days"', { kind: 'number' }],
	['0.0 "m/s"', { kind: 'number', places: 1 }],
	['"Due "dd.mm.', { kind: 'date' }]
]

describe('what a format says', () => {
	test.each(CODES)('%s', (code, format) => {
		expect(readFormat(code)).toEqual(format)
	})

	/** ECMA-376-1, 18.8.30, from memory. */
	test.each([
		[0, 'number'],
		[4, 'number'],
		[9, 'percent'],
		[10, 'percent'],
		[14, 'date'],
		[20, 'clock'],
		[22, 'date'],
		[45, 'clock'],
		[46, 'span'],
		[49, 'number']
	])('number %i is one of %s', (id, kind) => {
		expect(builtInFormat(id).kind).toBe(kind)
	})
})

describe('what a value says under it', () => {
	test.each<[value: number, format: CellFormat, text: string]>([
		[0.1 + 0.2, { kind: 'number' }, '0.3'],
		[1306.6200000000001, { kind: 'money', sign: '£' }, '£1306.62'],
		[-5.5, { kind: 'money', sign: '£' }, '-£5.50'],
		[12, { kind: 'money', sign: 'CHF' }, 'CHF 12.00'],
		[10, { kind: 'number', places: 1 }, '10.0'],
		[10.125, { kind: 'number', places: 1 }, '10.125'],
		[0.125, { kind: 'percent' }, '12.5%'],
		[0.07, { kind: 'percent' }, '7%'],
		[7, { kind: 'padded', digits: 3 }, '007'],
		[-7, { kind: 'padded', digits: 3 }, '-7'],
		[1234, { kind: 'padded', digits: 3 }, '1234'],
		// Day 45000 is 15 March 2023, as any office program says.
		[45_000, { kind: 'date' }, '2023-03-15'],
		[45_000.6875, { kind: 'date' }, '2023-03-15 16:30:00'],
		[45_000.999999, { kind: 'date' }, '2023-03-16'],
		[0.5, { kind: 'date' }, '12:00'],
		[1e9, { kind: 'date' }, '1000000000'],
		[14.5 / 24, { kind: 'clock' }, '14:30'],
		[26.25 / 24, { kind: 'clock' }, '1 d 2 h 15 min'],
		[45_000.5, { kind: 'clock' }, '2023-03-15 12:00:00'],
		[7.5 / 24, { kind: 'span' }, '7 h 30 min'],
		[-1.5 / 24, { kind: 'span' }, '−1 h 30 min']
	])('%d under %j', (value, format, text) => {
		expect(numberCellText(value, format)).toBe(text)
	})
})
