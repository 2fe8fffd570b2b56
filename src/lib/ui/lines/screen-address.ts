/**
 * What of a screen stands in its address, so that a reload and a link show the same: what it holds (`h.NAME`), and what its
 * lists are narrowed down to (`f.LINE.COLUMN`) and ordered by (`s.LINE`). Words that are typed stand in the fragment, which no log
 * holds; those that a list is looked through for as `f.LINE`.
 */
import type { Given } from '$lib/core/requests/screens.ts'

/** What the screen holds, by name: rows that are chosen, values, words. */
export function heldIn(url: URL): Record<string, string> {
	return Object.fromEntries([...namedIn(url.searchParams), ...namedIn(wordsIn(url))])
}

/** Whether some of it is words. */
export function hasWords(url: URL): boolean {
	return namedIn(wordsIn(url)).length > 0
}

/** The same screen holding another value under that name; none, where it is blank. */
export function withChosen(url: URL, name: string, value: string): string {
	return withGiven(url, { held: { [name]: value }, typed: {} })
}

/** The same screen with other words under that name. */
export function withTyped(url: URL, name: string, text: string): string {
	return withGiven(url, { held: {}, typed: { [name]: text } })
}

export function withGiven(url: URL, { held, typed }: Given): string {
	const [query, words] = [new URLSearchParams(url.search), wordsIn(url)]
	put(query, held)
	put(words, typed)
	return addressOf('', query, words)
}

/** The same screen with a list ordered by a column: upwards, then downwards, then as the list itself has it. */
export function withOrder(url: URL, line: string, column: number): string {
	const query = new URLSearchParams(url.search)
	const now = query.get(`s.${line}`)
	if (now === `${column}-`) query.delete(`s.${line}`)
	else query.set(`s.${line}`, now === String(column) ? `${column}-` : String(column))
	return addressOf('', query, wordsIn(url))
}

/** The words that a list is looked through for. */
export function soughtIn(url: URL, line: string): string {
	return wordsIn(url).get(`f.${line}`) ?? ''
}

export function withSought(url: URL, line: string, text: string): string {
	const words = wordsIn(url)
	if (text.trim() === '') words.delete(`f.${line}`)
	else words.set(`f.${line}`, text)
	return addressOf('', new URLSearchParams(url.search), words)
}

/** What of a screen's address says what is looked for on it: of the query, and of the fragment. */
export function searchIn(url: URL): { readonly query: string; readonly words: string } {
	return { query: String(new URLSearchParams(keptOf(url))), words: String(wordsIn(url)) }
}

/** A screen where that is looked for. */
export function searchAt(screen: string, { query, words }: { readonly query: string; readonly words: string }): string {
	return addressOf(screen, new URLSearchParams(query), new URLSearchParams(words))
}

/** Another screen with what a button gives it. */
export function opensWith(to: string, { held, typed }: Given, more: Readonly<Record<string, string>> = {}): string {
	const [query, words] = [new URLSearchParams(more), new URLSearchParams()]
	put(query, held)
	put(words, typed)
	return addressOf(to, query, words)
}

/** A screen with a row of a list, beside that list as it stands now. */
export function besideList(url: URL, { to, row, from }: { to: string; row: string; from: string }): string {
	const query = new URLSearchParams({ row, from })
	for (const [name, value] of keptOf(url)) query.append(name, value)
	return addressOf(to, query, wordsIn(url))
}

/** The way back to a list, as it stood. */
export function backToList(url: URL, list: string): string {
	return addressOf(list, new URLSearchParams(keptOf(url)), wordsIn(url))
}

/** What of the screen's address says which rows a list shows; begins with `&`, where there is any. */
export function listQuery(url: URL): string {
	return keptOf(url)
		.map(([name, value]) => `&${new URLSearchParams({ [name]: value })}`)
		.join('')
}

function keptOf(url: URL): [string, string][] {
	return [...url.searchParams].filter(([name]) => /^[fhs]\./.test(name))
}

function wordsIn(url: URL): URLSearchParams {
	return new URLSearchParams(url.hash.slice(1))
}

function namedIn(query: URLSearchParams): [string, string][] {
	return [...query].flatMap(([name, value]): [string, string][] =>
		name.startsWith('h.') ? [[name.slice(2), value]] : []
	)
}

function put(query: URLSearchParams, values: Readonly<Record<string, string>>): void {
	for (const [name, value] of Object.entries(values)) {
		if (value === '') query.delete(`h.${name}`)
		else query.set(`h.${name}`, value)
	}
}

/** A bare `?` takes away a query that stands there. */
function addressOf(to: string, query: URLSearchParams, words: URLSearchParams): string {
	const asked = query.size === 0 && to !== '' ? '' : `?${query}`
	return `${to}${asked}${words.size === 0 ? '' : `#${words}`}`
}
