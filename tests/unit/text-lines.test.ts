/** Words of a builder and values of anybody, as HTML: only Markdown means anything, and only in the builder's words. */
import { expect, test } from 'vitest'
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
