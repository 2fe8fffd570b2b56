/** What stands in a cell, as it is typed in and read back: a form that is opened and left as it is says what was there. */
import { describe, expect, test } from 'vitest'
import type { WireCell } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { BLANK_DRAFT, draftOf, readDraft, sameDraft } from './cell-draft.ts'
import { CONTROLS } from './controls.ts'

const column = (type: ShownColumn['type'], more: Partial<ShownColumn> = {}): ShownColumn => ({
	id: 7,
	name: 'Value',
	type,
	...more
})
const LONDON = { timeZone: 'Europe/London' }

describe('a cell comes back as it was', () => {
	test.each<[string, ShownColumn, WireCell]>([
		['text', column('text'), 'Dunlin'],
		['long text', column('long text'), 'two\nlines'],
		['a whole number', column('whole number'), -42],
		['a decimal, with all its places', column('decimal', { places: 2, unit: 'm' }), 4.25],
		['a free decimal', column('decimal'), 0.1],
		['money', column('money', { unit: 'GBP' }), 1250.5],
		['a percent', column('percent', { places: 1 }), 0.125],
		['yes', column('yes/no'), true],
		['no', column('yes/no'), false],
		['a date', column('date'), '2026-02-28'],
		['an instant in winter', column('date and time', LONDON), '2026-01-15T14:05:00.000Z'],
		['an instant in summer, an hour later on the clock', column('date and time', LONDON), '2026-07-15T23:30:00.000Z'],
		['an instant with seconds', column('date and time', LONDON), '2026-07-15T09:30:07.000Z'],
		['an instant without a zone of its own', column('date and time'), '2026-07-15T09:30:00.000Z'],
		['a time', column('time'), 0.6041666666666666],
		['a duration', column('duration'), 0.0625],
		['a choice', column('choice', { choices: ['Good', 'Watch'] }), 'Watch'],
		['several choices', column('several choices', { choices: ['Chain', 'Rope'] }), 'Chain; Rope'],
		['an address', column('email'), 'imke.dahl@varrow.example'],
		['a phone number', column('phone'), '01632 960 014'],
		['a web address', column('web address'), 'https://varrow.example/tides'],
		['a code', column('code'), 'NH-014'],
		['a place', column('place'), '50.30000, -4.10000'],
		['nothing', column('text'), null]
	])('%s', (_what, of, cell) => {
		const back = readDraft(of, draftOf(of, cell))
		if (typeof cell === 'number') expect(back).toEqual({ ok: true, value: expect.closeTo(cell, 9) })
		else expect(back).toEqual({ ok: true, value: cell })
	})

	test('a reference is the row that was chosen; one that is typed is looked for', () => {
		const mooring = column('reference', { to: 3 })
		const draft = draftOf(mooring, { id: 'row', label: 'NH-014' })
		expect(draft).toEqual({ text: 'NH-014', id: 'row' })
		expect(readDraft(mooring, draft)).toEqual({ ok: true, value: { id: 'row' } })
		expect(readDraft(mooring, { text: ' NH-015 ' })).toEqual({ ok: true, value: { match: 'NH-015' } })
		expect(readDraft(mooring, BLANK_DRAFT)).toEqual({ ok: true, value: null })
	})

	test('a file is the one that lay there, until another is given in', () => {
		const photo = column('photo')
		const cell = { file: { name: 'IMG_1.jpg', type: 'image/jpeg', size: 3, sha: 'ab'.repeat(32) } }
		const draft = draftOf(photo, cell)
		expect(readDraft(photo, draft)).toEqual({ ok: true, value: { file: 'ab'.repeat(32) } })
		expect(sameDraft(draft, draftOf(photo, cell))).toBe(true)
		expect(sameDraft(draft, { ...draft, file: 'token' })).toBe(false)
	})

	test('what cannot be shown is nothing that could be sent back', () => {
		expect(draftOf(column('text'), undefined)).toEqual(BLANK_DRAFT)
		expect(draftOf(column('whole number'), { error: '#DIV/0!' })).toEqual(BLANK_DRAFT)
	})
})

describe('what is typed', () => {
	test.each<[string, ShownColumn, string, string | number]>([
		[
			'an instant, as the clock on the quay shows it',
			column('date and time', LONDON),
			'2026-07-15T14:05',
			'2026-07-15T13:05:00.000Z'
		],
		['spaces around it', column('code'), '  nh-014 ', 'nh-014'],
		['thousands', column('whole number'), '12,500', 12_500],
		['a decimal', column('decimal', { places: 1 }), '4.2', 4.2]
	])('is read: %s', (_what, of, text, value) => {
		expect(readDraft(of, { text })).toEqual({ ok: true, value })
	})

	test.each<[string, ShownColumn, string, RegExp]>([
		['a word for a number', column('whole number'), 'deep', /deep/],
		['a day that is none', column('date'), '2026-02-30', /2026-02-30/],
		['an hour that is none', column('date and time', LONDON), '2026-07-15T25:00', /25:00/],
		['an address without a domain', column('email'), 'imke', /imke/],
		['nothing where something must be', column('text', { required: true }), '  ', /^Value must be filled in\.$/],
		['what is worked out', column('computed'), '5', /cannot be typed in/]
	])('is refused with its place: %s', (_what, of, text, message) => {
		expect(readDraft(of, { text })).toEqual({ ok: false, message: expect.stringMatching(message) })
	})

	test.each([
		['date', 'date'],
		['date and time', 'datetime-local'],
		['email', 'email'],
		['phone', 'tel'],
		['money', 'text'],
		['code', 'text']
	] as const)('%s is typed into a field of the kind %s', (type, kind) => {
		expect(CONTROLS[type].input ?? 'text').toBe(kind)
	})
})
