/**
 * What of a screen stands in its address, so that a reload and a link show the same: the rows that are chosen in its lists
 * (`h.NAME`), and what those are narrowed down to (`f.LINE.COLUMN`). What is typed stands in none.
 */

/** The rows that are chosen, by name. */
export function heldIn(url: URL): Record<string, string> {
	const named = [...url.searchParams].filter(([name]) => name.startsWith('h.'))
	return Object.fromEntries(named.map(([name, id]) => [name.slice(2), id]))
}

/** The same screen with another row chosen under that name; with none, where it is blank. */
export function withChosen(url: URL, name: string, row: string): string {
	const query = new URLSearchParams(url.search)
	if (row === '') query.delete(`h.${name}`)
	else query.set(`h.${name}`, row)
	return `?${query}`
}

/** A screen with a row of a list, beside that list as it stands now. */
export function besideList(url: URL, { to, row, from }: { to: string; row: string; from: string }): string {
	const query = new URLSearchParams({ row, from })
	for (const [name, value] of keptOf(url)) query.append(name, value)
	return `${to}?${query}`
}

/** The way back to a list, as it stood. */
export function backToList(url: URL, list: string): string {
	const query = new URLSearchParams(keptOf(url))
	return query.size === 0 ? list : `${list}?${query}`
}

/** What of the screen's address says which rows a list shows; begins with `&`, where there is any. */
export function listQuery(url: URL): string {
	return keptOf(url)
		.map(([name, value]) => `&${new URLSearchParams({ [name]: value })}`)
		.join('')
}

function keptOf(url: URL): [string, string][] {
	return [...url.searchParams].filter(([name]) => /^[fh]\./.test(name))
}
