/** Words by which apps are found, searches that people keep, and what small texts from outside are read as. */
import { beforeEach, describe, expect, test } from 'vitest'
import { APP_FORMAT, appSchema } from '$lib/core/app/document.ts'
import { isSafeAddress } from '$lib/core/app/lines/button.ts'
import { isWebAddress } from '$lib/core/app/lines/video.ts'
import { readLook, writeLook } from '$lib/core/requests/look-of-pages.ts'
import { screenRequestSchema } from '$lib/core/requests/screen-doings.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { appByWord, setWord, wordOf } from '$lib/server/apps/app-word.ts'
import { forgetSearch, keepSearch, keptSearches } from '$lib/server/apps/kept-searches.ts'
import { readNarrowed } from '$lib/server/web/app-place.ts'
import { rangeOf } from '$lib/server/web/byte-range.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import { openScratch } from '../support/scratch-store.ts'

const NOW = Date.parse('2026-11-30T12:00:00Z')
const [SASKIA, IMKE, VISITORS] = [2, 3, 4]

let store: Store

beforeEach(() => {
	store = openScratch({ now: NOW, roles: [{ id: BUILDER, name: 'Builders', includes: [] }], tables: [] })
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES
			(2, 0, 0, 'Saskia', 'saskia'), (3, 0, 0, 'Imke', 'imke'), (4, 0, 0, 'Visitors', 'visitors');
		INSERT INTO role_held (person, role) VALUES (${SASKIA}, ${BUILDER})`)
	for (const name of ['Moorings', 'Stores']) {
		const document = appSchema.parse({
			...{ format: APP_FORMAT, name, about: '', colour: 'sea' },
			...{ screens: ['due', 'all'].map((id) => ({ id, title: id, lines: [] })), routines: [], signoffs: [] }
		})
		addAppFrom(store, { document, actor: { person: SASKIA }, now: NOW })
	}
	store.db.exec(`
		INSERT INTO visitor (person, app) VALUES (${VISITORS}, 1);
		INSERT INTO release (app, number, body, made_at, made_by)
			SELECT 1, 1, body, 0, ${SASKIA} FROM document WHERE kind = 'app 1';
		UPDATE app SET live_release = 1 WHERE id = 1`)
})

describe('the word of an app', () => {
	const give = (app: number, word: string, person = SASKIA) =>
		setWord(store, { app, word, actor: { person }, now: NOW })

	test('finds it, however it is typed, and is taken away again', () => {
		give(1, ' Harbour-Office ')
		expect([wordOf(store, { app: 1 }), appByWord(store, { word: 'HARBOUR-office' })]).toEqual(['harbour-office', 1])
		give(1, '')
		expect([wordOf(store, { app: 1 }), appByWord(store, { word: 'harbour-office' })]).toEqual(['', null])
	})

	test('is that of one app alone', () => {
		give(1, 'quay')
		give(1, 'quay')
		expect(() => give(2, 'Quay')).toThrow('the word of another app')
		expect(appByWord(store, { word: 'quay' })).toBe(1)
	})

	test.each(['two words', 'a/b', '-quay', 'quay-', 'käse', '..', 'x'.repeat(41), '<b>'])('is not "%s"', (word) => {
		expect(() => give(1, word)).toThrow('small letters, digits and strokes')
	})

	test('is given by builders', () => {
		expect(() => give(1, 'quay', IMKE)).toThrow('Only builders')
	})
})

describe('searches that somebody keeps', () => {
	const of = (person: number, screen = 'due') => ({ app: 1, screen, actor: { person } })
	const keep = (person: number, name: string, query = 'f.l.3=Ness', words = '') =>
		keepSearch(store, { ...of(person), now: NOW, name, query, words })
	const names = (person: number, screen?: string) => keptSearches(store, of(person, screen)).map(({ name }) => name)

	test('are theirs alone, of one screen, by name', () => {
		keep(IMKE, 'Ness')
		keep(IMKE, 'Gull', 'h.harbour=g', 'f.l=chain')
		expect(names(IMKE)).toEqual(['Gull', 'Ness'])
		expect([names(SASKIA), names(IMKE, 'all')]).toEqual([[], []])
		keep(IMKE, 'Ness', 'f.l.3=Orrin')
		expect(keptSearches(store, of(IMKE))).toMatchObject([
			{ name: 'Gull', query: 'h.harbour=g', words: 'f.l=chain' },
			{ name: 'Ness', query: 'f.l.3=Orrin' }
		])
	})

	test('are taken off by who keeps them, and by nobody else', () => {
		keep(IMKE, 'Ness')
		const [{ id = 0 } = {}] = keptSearches(store, of(IMKE))
		forgetSearch(store, { id, actor: { person: SASKIA } })
		expect(names(IMKE)).toEqual(['Ness'])
		forgetSearch(store, { id, actor: { person: IMKE } })
		expect(names(IMKE)).toEqual([])
	})

	test('are kept for no visitor, and not for who is only looked as', () => {
		expect(() => keep(VISITORS, 'Ness')).toThrow('people with an account')
		keep(IMKE, 'Ness')
		expect(keptSearches(store, { ...of(IMKE), actor: { person: IMKE, lookedAtBy: SASKIA } })).toEqual([])
	})

	test.each([
		[1, 'gone'],
		[2, 'due'],
		[99, 'due']
	])('are kept for no screen that is not there: app %s, screen %s', (app, screen) => {
		const search = { name: 'x', query: '', words: '', now: NOW }
		expect(() => keepSearch(store, { app, screen, actor: { person: IMKE }, ...search })).toThrow('not there')
	})

	test('are thirty at most', () => {
		for (let i = 0; i < 30; i++) keep(IMKE, `Search ${i}`)
		expect(() => keep(IMKE, 'One more')).toThrow('Take one off first')
		keep(IMKE, 'Search 7', 'f.l.3=Gull')
		expect(names(IMKE)).toHaveLength(30)
	})

	test.each([
		['f.l.3=Ness&h.kind=Rope&s.l=4-', 'f.l=bow&h.boat=wren', true],
		['row=abc', '', false],
		['from=due', '', false],
		['f.l.3=Ness', 's.l=4', false],
		['constructor=1', '', false]
	])('hold nothing but what is looked for: "%s" "%s"', (query, words, isTaken) => {
		const asked = { kind: 'keep search', name: 'x', query, words }
		expect(screenRequestSchema.safeParse(asked).success).toBe(isTaken)
	})
})

test.each([
	[
		'f.l.3=Ness&f.l.4=',
		{
			l: {
				filters: [
					{ column: 3, text: 'Ness' },
					{ column: 4, is: 'blank' }
				]
			}
		}
	],
	['s.l=4', { l: { sort: { column: 4, descending: false } } }],
	['s.l=4-&f.l.3=Ness', { l: { sort: { column: 4, descending: true }, filters: [{ column: 3 }] } }],
	['s.l=four', {}],
	['s.l=4--', {}],
	['s.=4', {}],
	['f.constructor.3=Ness', { constructor: { filters: [{ column: 3 }] } }]
])('what lists are narrowed down to and ordered by: %s', (query, narrowed) => {
	const found = readNarrowed(new URL(`https://tin-shed.example/app/1/due?${query}`))
	expect(found).toMatchObject(narrowed)
	expect(Object.keys(found)).toEqual(Object.keys(narrowed))
})

// RFC 9110, 14.1.2: first and last byte are both counted in; only an end is so many bytes from there.
test.each([
	[null, undefined],
	['bytes=0-', { start: 0, end: 99 }],
	['bytes=0-0', { start: 0, end: 0 }],
	['bytes=90-500', { start: 90, end: 99 }],
	['bytes=-10', { start: 90, end: 99 }],
	['bytes=-500', { start: 0, end: 99 }],
	['bytes=100-', undefined],
	['bytes=5-2', undefined],
	['bytes=-', undefined],
	['bytes=0-1,5-6', undefined],
	['lines=0-5', undefined]
])('of a hundred bytes "%s" asks for %j', (header, range) => {
	expect(rangeOf(header, 100)).toEqual(range)
})

test.each([
	['', { theme: undefined, contrast: false }],
	['dark.more', { theme: 'dark', contrast: true }],
	['light', { theme: 'light', contrast: false }],
	['more', { theme: undefined, contrast: true }],
	['"><script>', { theme: undefined, contrast: false }],
	['%E0%A4%A', { theme: undefined, contrast: false }]
])('a page looks as "%s" says', (text, look) => {
	expect(readLook(text)).toEqual(look)
	expect(readLook(writeLook(readLook(text)))).toEqual(look)
})

test.each([
	['https://tides.example/today', true],
	['https://[', false],
	['https://%', false],
	['javascript:alert(1)', false]
])('"%s" is an address that a page may show: %s', (address, isSound) => {
	expect([isWebAddress(address), isSafeAddress(address)]).toEqual([isSound, isSound])
})
