/** Words of a builder and values of anybody, as HTML: only Markdown means anything, and only in the builder's words. */
import { expect, test } from 'vitest'
import { appSchema, APP_FORMAT } from '$lib/core/app/document.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { toHtml } from '$lib/server/apps/shown/text.ts'

const shown = (words: string, values: Readonly<Record<string, string>> = {}) =>
	toHtml(words, (formula) => values[formula] ?? '').trim()

test.each([
	['Markdown is Markdown', '**now** and *then*', '<p><strong>now</strong> and <em>then</em></p>'],
	['HTML is words', '<script>alert(1)</script>', '<p>&lt;script&gt;alert(1)&lt;/script&gt;</p>'],
	['a picture is words', '![x](https://x.example/a.png)', '<p>!<a href="https://x.example/a.png" target="_blank" rel="noopener noreferrer">x</a></p>'], // prettier-ignore
	['a script is no link', '[x](javascript:alert(1))', '<p>[x](javascript:alert(1))</p>'],
	['nor is data', '[x](data:text/html;base64,AAAA)', '<p>[x](data:text/html;base64,AAAA)</p>'],
	['a link opens apart', '[x](https://x.example)', '<p><a href="https://x.example" target="_blank" rel="noopener noreferrer">x</a></p>'], // prettier-ignore
	['two braces are one', 'a {{ b', '<p>a { b</p>']
])('%s', (_what, words, html) => {
	expect(shown(words)).toBe(html)
})

test.each([
	['a link', '[x](https://x.example)'],
	['a heading', '# Big'],
	['HTML', '<img src=x onerror=alert(1)>'],
	['strong words', '**loud**'],
	['a fence', '```\ncode\n```'],
	['the sign of a value', '\uE0000\uE001']
])('a value that holds %s is text', (_what, value) => {
	const html = shown('Hello {name}.', { name: value })
	expect(html).toMatch(/^<p>Hello [^]*\.<\/p>$/)
	expect(html).not.toMatch(/<(a|h1|img|strong|pre|code)\b/)
})

test('a value in an address makes no link', () => {
	const html = shown('[here]({where})', { where: 'javascript:alert(1)' })
	expect(html).not.toContain('<a')
})

test('values stand where they were, in their order', () => {
	expect(shown('{a}, {b} and {a}', { a: 'x', b: 'y & z' })).toBe('<p>x, y &amp; z and x</p>')
})

test('of one’s own row a text says what one sees there, what a steward opened, and one’s name', () => {
	const NOW = Date.parse('2026-11-29T12:00:00Z')
	const store = openScratch({
		now: NOW,
		peopleColumns: [
			{ id: 3, name: 'note', type: 'text' },
			{ id: 4, name: 'grade', type: 'text', openAsMe: true },
			{ id: 5, name: 'doubled', type: 'computed', formula: 'note & note' }
		],
		tables: [{ id: 2, name: 'ports', keepers: [KEEPER], label: 20, columns: [{ id: 20, name: 'name', type: 'text' }] }],
		roles: [{ id: 10, name: 'Crew', includes: [] }],
		lines: [{ id: 'p', table: 2, role: 10, verbs: ['see'], where: '', columns: { kind: 'all' } }]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c3, c3k, c4, c4k) VALUES (2, 0, 0, 'Imke', 'imke', 'on notice', 'on notice', 'senior', 'senior');
		INSERT INTO role_held (person, role) VALUES (2, 10)`)
	const lines = [
		{ id: 't', kind: 'text' as const, text: '{me.name}|{me.grade}|{me.note}|{me.doubled}' },
		{ id: 'l', kind: 'list' as const, table: 2, where: '', sort: [], columns: [20], opens: null }
	]
	const screens = [{ id: 's', title: 'Start', lines }]
	const none = { about: '', colour: 'sea' as const, routines: [], signoffs: [] }
	const document = appSchema.parse({ format: APP_FORMAT, name: 'Care', screens, ...none })
	const shown = openScreen(store, { app: 1, draft: true, document, actor: { person: 2 }, now: NOW })
	expect(shown.screen?.lines[0]).toMatchObject({ html: '<p>Imke|senior||</p>\n' })
	store.db.close()
})
