import { describe, expect, test } from 'vitest'
import type { Column, ColumnTypeName } from '../../model/table.ts'
import { showValue } from '../show-value.ts'
import { findKind } from './all.ts'
import { TYPED, type Writing } from '../../model/writing.ts'
import { toScaled } from './numbers.ts'
import { randomFrom } from '../../../../../demo/random.ts'

const column = (type: ColumnTypeName, extra: Partial<Column> = {}): Column => ({ id: 1, name: 'x', type, ...extra })

function read(type: ColumnTypeName, text: string, extra: Partial<Column> = {}, writing: Writing = TYPED) {
	const kind = findKind(type)
	if (!kind) throw new Error(`Cannot find type "${type}"`)
	const reading = kind.read(text, column(type, extra), writing)
	return reading.ok ? reading.value : reading.message
}

const VERDICTS = { choices: ['Sound', 'Watch', 'Replace'] }

describe('what is typed or stands in a file is read', () => {
	test.each<[ColumnTypeName, string, Partial<Column>, unknown]>([
		['text', 'two\nlines', {}, 'two lines'],
		['long text', 'two\r\nlines', {}, 'two\nlines'],
		['whole number', '1,234', {}, 1234],
		['whole number', '−5', {}, -5],
		['whole number', '9007199254740991', {}, 9007199254740991],
		['decimal', '.5', {}, 0.5],
		['decimal', '1.5e-3', {}, 0.0015],
		['decimal', '1.4', { places: 1 }, 1.4],
		['decimal', '1.25', { places: 1 }, 1.3],
		['money', '£1,234.50', {}, 1234.5],
		['money', '-£0.99', {}, -0.99],
		['percent', '12.5%', {}, 0.125],
		['percent', '0.5', {}, 0.5],
		['yes/no', 'Yes', {}, true],
		['yes/no', 'nein', {}, false],
		['date', '3 Apr 2026', {}, '2026-04-03'],
		['date', '03/04/2026', {}, '2026-04-03'],
		['date', 'January 31, 2024', {}, '2024-01-31'],
		['date', '12-Mar-85', {}, '1985-03-12'],
		['date', '31.12.26', {}, '2026-12-31'],
		['date and time', '2026-04-03 14:30', {}, '2026-04-03T14:30:00.000Z'],
		['date and time', '3/4/2026 2:30 pm', {}, '2026-04-03T14:30:00.000Z'],
		['date and time', '3 Apr 2026 2:30 p.m.', {}, '2026-04-03T14:30:00.000Z'],
		['date and time', '3 Apr 2026, 12:05 am', {}, '2026-04-03T00:05:00.000Z'],
		['date and time', '3 Apr 2026 2pm', {}, '2026-04-03T14:00:00.000Z'],
		['date and time', '2026-04-03T14:30:05+0200', {}, '2026-04-03T12:30:05.000Z'],
		['date and time', '2026-04-03 14:30 +02:00', {}, '2026-04-03T12:30:00.000Z'],
		['date and time', '2026-04-03 14:30 UTC', {}, '2026-04-03T14:30:00.000Z'],
		['date and time', '2026-04-03T14:30:05,250Z', {}, '2026-04-03T14:30:05.000Z'],
		['date and time', '2026-04-03 24:00', {}, '2026-04-04T00:00:00.000Z'],
		['date and time', '03.04.2026 14.30', {}, '2026-04-03T14:30:00.000Z'],
		['time', '2:30 p.m.', {}, 14.5 / 24],
		['time', '2 pm', {}, 14 / 24],
		['time', '00:15', {}, 0.25 / 24],
		['yes/no', 'T', {}, true],
		['yes/no', 'f', {}, false],
		['date and time', '3 Apr 2026 2:05 pm', {}, '2026-04-03T14:05:00.000Z'],
		['date and time', '2026-04-03T14:30:00+02:00', {}, '2026-04-03T12:30:00.000Z'],
		['time', '14:30', {}, 14.5 / 24],
		['time', '12:00 am', {}, 0],
		['time', '9:30 PM', {}, 21.5 / 24],
		['duration', '1 h 30 min', {}, 1.5 / 24],
		['duration', '1h30m', {}, 1.5 / 24],
		['duration', '90 minutes', {}, 1.5 / 24],
		['duration', '26:15', {}, 26.25 / 24],
		['duration', 'PT45M', {}, 0.75 / 24],
		['duration', '-2 h', {}, -2 / 24],
		['choice', 'watch', VERDICTS, 'Watch'],
		['several choices', 'replace; sound', VERDICTS, 'Sound; Replace'],
		['several choices', 'Watch, watch', VERDICTS, 'Watch'],
		['several choices', 'Watch; Sond', VERDICTS, '"Sond" is not one of the choices. Did you mean "Sound"?'],
		['several choices', 'Rope, tarred', { choices: ['Rope, tarred', 'Chain'] }, 'Rope, tarred'],
		['photo', 'chain.jpg', {}, 'Photos are taken or chosen, not typed.'],
		['signature', 'Imke', {}, 'A signature is written by hand, not typed.'],
		['email', 'imke.dahl@varrow.example', {}, 'imke.dahl@varrow.example'],
		['phone', '01632 960176', {}, '01632 960176'],
		['web address', 'www.varrow.example', {}, 'https://www.varrow.example'],
		['code', '007', {}, '007'],
		['place', '50.3121;-4.1102', {}, '50.3121, -4.1102']
	])('%s: %s', (type, text, extra, wanted) => {
		expect(read(type, text, extra)).toBe(wanted)
	})

	test('month first, where the file says so', () => {
		expect(read('date', '03/04/2026', {}, { dates: 'month first', decimal: '.' })).toBe('2026-03-04')
	})
})

describe('what cannot be read is said in words', () => {
	test.each<[ColumnTypeName, string, Partial<Column>, string]>([
		['time', '25:00', {}, '"25:00" is no time of day. Write it like 14:30.'],
		['time', '13:00 pm', {}, '"13:00 pm" is no time of day. Write it like 14:30.'],
		['duration', 'an hour', {}, '"an hour" is no span of time. Write it like 1 h 30 min, or 1:30.'],
		['whole number', '1.5', {}, '1.5 is not a whole number.'],
		['whole number', '9007199254740993', {}, 'too long. Keep it as text.'],
		['decimal', '1e101', {}, 'too large'],
		['decimal', '12,34', {}, '"12,34" is no number.'],
		['decimal', '1,23,4', {}, 'is no number'],
		['money', '£', {}, 'is no number'],
		['date', '31/02/2026', {}, '"31/02/2026" is no date that exists.'],
		['date', '2026-13-01', {}, 'is no date'],
		['date and time', '2026-04-03 25:00', {}, 'is no date and time'],
		['choice', 'Wach', VERDICTS, 'Did you mean "Watch"?'],
		['email', 'imke at varrow', {}, 'is no email address'],
		['phone', 'call me', {}, 'is no phone number'],
		['web address', 'javascript:alert(1)', {}, 'is no web address'],
		['place', '91.0, 0.0', {}, 'is no place'],
		['yes/no', 'perhaps', {}, 'is neither yes nor no']
	])('%s: %s', (type, text, extra, message) => {
		expect(String(read(type, text, extra))).toContain(message)
	})

	test.each<[ColumnTypeName, unknown]>([
		['text', 5],
		['whole number', true],
		['date', '3 Apr 2026'],
		['date', 20260403],
		['yes/no', 'yes'],
		['choice', 1],
		['decimal', Number.NaN],
		['date and time', '2026-04-03']
	])('a value that came from outside as another kind is refused: %s %s', (type, value) => {
		expect(findKind(type)?.check(value, column(type, VERDICTS)).ok).toBe(false)
	})
})

describe('what is stored comes back, and is shown as people read it', () => {
	test.each<[ColumnTypeName, Partial<Column>, string | number | boolean, string | number, string]>([
		['money', { unit: '£' }, 1234.5, 123450, '£1,234.50'],
		['money', { unit: '£' }, -7.25, -725, '−£7.25'],
		['percent', { places: 1 }, 0.125, 125, '12.5 %'],
		['decimal', { places: 1, unit: 'mm' }, 25.2, 252, '25.2 mm'],
		['decimal', {}, 0.1, 0.1, '0.1'],
		['whole number', {}, 1234567, 1234567, '1,234,567'],
		['yes/no', {}, true, 1, 'yes'],
		['date', {}, '2026-04-03', '2026-04-03', '3 Apr 2026'],
		['choice', VERDICTS, 'Replace', 3, 'Replace'],
		['text', {}, 'Ness Hythe', 'Ness Hythe', 'Ness Hythe']
	])('%s %j %s', (type, extra, value, stored, shown) => {
		const kind = findKind(type)
		const of = column(type, extra)
		expect(kind?.toStored(value, of)).toBe(stored)
		expect(kind?.fromStored(stored, of)).toBe(value)
		expect(showValue(value, of)).toBe(shown)
	})
})

describe('in units of the last place, half away from zero', () => {
	test.each([
		[2.5, 1, 3],
		[-2.5, 1, -3],
		[1.005, 100, 101],
		[-1.005, 100, -101],
		[2.4999, 1, 2],
		[0, 100, 0],
		[0.285, 100, 29],
		[377381383386, 1, 377381383386],
		[377381383386, 10_000, 3773813833860000],
		[45035996273704.95, 100, 4503599627370495]
	])('%s by %i → %s', (value, scale, wanted) => {
		expect(toScaled(value, scale)).toBe(wanted)
	})

	test('a whole number gains no fraction, and a number of few places comes back as it was', () => {
		const random = randomFrom(7)
		for (let i = 0; i < 20_000; i++) {
			const scale = 10 ** Math.floor(random.next() * 5)
			const units = Math.floor(random.next() * Number.MAX_SAFE_INTEGER)
			// By the digits themselves, which no floating number has touched.
			const digits = String(units).padStart(6, '0')
			const places = Math.log10(scale)
			const text = places === 0 ? digits : `${digits.slice(0, -places)}.${digits.slice(-places)}`
			if (String(Number(text)) !== text.replace(/^0+(?=\d)/, '').replace(/\.?0+$/, '') && text.includes('.')) continue
			expect([text, scale, toScaled(Number(text), scale)]).toEqual([text, scale, units])
		}
	})
})
