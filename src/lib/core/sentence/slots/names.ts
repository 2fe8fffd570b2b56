/**
 * Names in sentences. For reading they stand as they are; exact, one that a list could not hold stands in quotes, and one
 * that is not the only one, or names nothing any more, has its number or id beside it: `"Depth, low water", Code, Note #17`.
 */
import { textKey } from '../../text/key.ts'
import { findNearest } from '../../text/nearest.ts'
import type { Reading } from './entry.ts'

export interface Named<Id extends number | string> {
	readonly id: Id
	readonly name: string
}

/** What a list of names is called, one of it: `table`. */
export interface Names<Id extends number | string> {
	readonly list: readonly Named<Id>[]
	readonly what: string
	/** Ids of those that are there, and not for who reads. */
	readonly unseen?: readonly Id[] | undefined
}

export function printName<Id extends number | string>({ list, what, unseen }: Names<Id>, id: Id): string {
	const name = list.find((each) => each.id === id)?.name
	return name ?? (unseen?.includes(id) ? `a ${what} that you may not see` : `a ${what} that is gone`)
}

export function readName<Id extends number | string>({ list, what }: Names<Id>, text: string): Reading<Id> {
	const key = textKey(text)
	const found = list.find((each) => textKey(each.name) === key)
	if (found) return { value: found.id }
	const near = findNearest(
		text,
		list.map(({ name }) => name)
	)
	return { message: `There is no ${what} "${text}".` + (near ? ` Did you mean "${near}"?` : '') }
}

export function printExactName<Id extends number | string>({ list }: Names<Id>, id: Id): string {
	const name = list.find((each) => each.id === id)?.name
	if (name === undefined) return `#${id}`
	const isOnly = list.filter((each) => textKey(each.name) === textKey(name)).length === 1
	return quoteName(name) + (isOnly ? '' : ` #${id}`)
}

export function readExactName<Id extends number | string>(names: Names<Id>, text: string): Reading<Id> {
	const [, before = '', id] = /^("(?:[^"]|"")*"|[^"#]*)\s*(?:#(.+))?$/.exec(text.trim()) ?? []
	if (id === undefined) return readName(names, unquoteName(before.trim()))
	const known = names.list.find((each) => String(each.id) === id)
	if (known) return { value: known.id }
	// Of what is gone only its number is left. Numbers are ids where all are.
	return { value: (/^\d+$/.test(id) ? Number(id) : id) as Id }
}

export function printExactNames<Id extends number | string>(names: Names<Id>, ids: readonly Id[]): string {
	return ids.map((id) => printExactName(names, id)).join(', ')
}

export function readExactNames<Id extends number | string>(names: Names<Id>, text: string): Reading<readonly Id[]> {
	return readEach(splitOutside(text, ','), (each) => readExactName(names, each))
}

/** Each part read; the first that cannot be is said. */
export function readEach<V>(parts: readonly string[], read: (part: string) => Reading<V>): Reading<readonly V[]> {
	const values: V[] = []
	for (const part of parts) {
		const reading = read(part)
		if ('message' in reading) return reading
		values.push(reading.value)
	}
	return { value: values }
}

/** The pieces between signs that stand outside quotes and brackets. */
export function splitOutside(text: string, sign: string): string[] {
	if (text.trim() === '') return []
	const at = indexOutside(text, sign)
	if (at === -1) return [text.trim()]
	return [text.slice(0, at).trim(), ...splitOutside(text.slice(at + 1), sign)]
}

/** Where a sign first stands outside quotes and brackets; -1 where it does not. */
export function indexOutside(text: string, sign: string): number {
	let isQuoted = false
	let depth = 0
	for (let at = 0; at < text.length; at++) {
		const each = text[at]
		if (!isQuoted && depth === 0 && each === sign) return at
		if (each === '"') isQuoted = !isQuoted
		else if (!isQuoted && each === '(') depth++
		else if (!isQuoted && each === ')') depth--
	}
	return -1
}

/** `a, b and c`, or whatever stands for the word between the last two. */
export function joinWords(words: readonly string[], and: string): string {
	if (words.length <= 1) return words.join('')
	return `${words.slice(0, -1).join(', ')} ${and} ${words[words.length - 1] ?? ''}`
}

const PLAIN = /^[^",.()#]+$/

export function quoteName(name: string): string {
	return PLAIN.test(name) && name.trim() === name ? name : `"${name.replaceAll('"', '""')}"`
}

export function unquoteName(text: string): string {
	return text.startsWith('"') ? text.slice(1, -1).replaceAll('""', '"') : text
}
