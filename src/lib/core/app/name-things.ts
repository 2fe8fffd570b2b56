/** What one row of a table is called, from the table's name: for buttons and titles that are made by themselves. */

/** `moorings` → `mooring`, `Spend requests` → `spend request`; a name that counts nothing (`stock`) gives `item`. */
export function oneOf(table: string): string {
	const words = table.trim().split(/\s+/)
	const last = words.at(-1) ?? ''
	const single = singular(last)
	if (single === undefined) return 'item'
	return [...words.slice(0, -1), single].map(lowerFirst).join(' ')
}

/** `mooring` → `a mooring`, `item` → `an item`; by its first letter, as most words go. */
export function withArticle(noun: string): string {
	return `${/^[aeiou]/i.test(noun) && !/^(uni|use|usu|eu|one)/i.test(noun) ? 'an' : 'a'} ${noun}`
}

export function capitalized(text: string): string {
	return text.charAt(0).toUpperCase() + text.slice(1)
}

/** The single of a plural as English mostly makes them; undefined for what is none. */
function singular(word: string): string | undefined {
	const known = IRREGULAR.get(word.toLowerCase())
	if (known !== undefined) return known
	if (/(ss|us|is|news)$/i.test(word)) return undefined
	if (/[^aeiou]ies$/i.test(word)) return `${word.slice(0, -3)}y`
	if (/(ch|sh|x|ss|zz)es$/i.test(word)) return word.slice(0, -2)
	return /.{2,}s$/i.test(word) ? word.slice(0, -1) : undefined
}

const IRREGULAR: ReadonlyMap<string, string> = new Map([
	['people', 'person'],
	['staff', 'person'],
	['men', 'man'],
	['women', 'woman'],
	['children', 'child'],
	['leaves', 'leave'],
	['buses', 'bus']
])

/** All in capitals is a name of its own: `PO numbers` keeps its first word. */
function lowerFirst(word: string): string {
	return /^\p{Lu}\p{Ll}*$/u.test(word) ? word.toLowerCase() : word
}
