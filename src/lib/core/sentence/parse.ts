/**
 * Reads a typed sentence as a line: the words of the kind must stand there in their order, what stands between them
 * fills the slots. What is left out keeps its blank; a name that is not known is said, with the nearest one.
 */
import { VERBS } from '../access/types.ts'
import { textKey } from '../text/key.ts'
import { findNearest } from '../text/nearest.ts'
import { writeSlot } from './line-values.ts'
import { tableOf } from './print.ts'
import type { LineValue, SentenceKind, Slot, Vocabulary } from './types.ts'

export interface Sentence {
	readonly kind: SentenceKind
	/** A new line of the kind, with all its slots blank. */
	readonly blank: LineValue
}

export type ParsedLine =
	{ readonly ok: true; readonly line: LineValue } | { readonly ok: false; readonly message: string }

/** The line that a sentence says, by the first kind whose first words it begins with. */
export function parseLine(
	text: string,
	kinds: readonly Sentence[],
	vocabulary: Vocabulary,
	table?: number
): ParsedLine {
	const typed = text.trim()
	for (const { kind, blank } of kinds) {
		const found = matchParts(kind, typed)
		if (found) return fill(kind, blank, found, { vocabulary, table })
	}
	const starts = kinds.map(({ kind }) => `"${firstWords(kind)}…"`).join(', ')
	return { ok: false, message: `No line begins like that. Lines here begin with ${starts}.` }
}

/** What a kind's sentence begins with, as an offer while somebody types. */
export function firstWords(kind: SentenceKind): string {
	if (kind.offer) return kind.offer
	const [first] = kind.parts
	return typeof first === 'string' ? first.trim() : (first?.title ?? kind.kind)
}

interface Filled {
	readonly slot: Slot
	readonly text: string
}

/** Walks the sentence part by part: words must match, a slot takes everything up to the next words that do. */
function matchParts(kind: SentenceKind, text: string): Filled[] | undefined {
	const filled: Filled[] = []
	let rest = text
	for (let i = 0; i < kind.parts.length; i++) {
		const part = kind.parts[i]
		if (part === undefined || rest === '') break
		if (typeof part === 'string') {
			const after = takeWords(rest, part)
			if (after === undefined) {
				if (i === 0) return undefined
				continue
			}
			rest = after
			continue
		}
		const bare = part.before ? (takeWords(rest, part.before) ?? rest) : rest
		const end = findNextWords(bare, kind.parts.slice(i + 1))
		const value = bare.slice(0, end).trim().replace(/[,;]$/, '').trim()
		if (value !== '' && textKey(value) !== textKey(part.empty ?? '')) filled.push({ slot: part, text: value })
		rest = bare.slice(end).trim()
	}
	return rest === '' ? filled : undefined
}

function takeWords(text: string, words: string): string | undefined {
	const wanted = words.trim().replace(/^[,;:]\s*/, '')
	const given = text.replace(/^[,;:]\s*/, '')
	if (wanted === '') return given
	if (!textKey(given).startsWith(textKey(wanted))) return undefined
	const next = given[wanted.length]
	if (next !== undefined && /[\p{L}\p{N}]/u.test(next) && /[\p{L}\p{N}]$/u.test(wanted)) return undefined
	return given.slice(wanted.length).trim()
}

/** Where the next fixed words stand that the text really has. */
function findNextWords(text: string, parts: SentenceKind['parts']): number {
	// What stands in quotes is a value of a formula, never words of the sentence.
	const key = textKey(text).replace(/"[^"]*"/g, (quoted) => '"'.repeat(quoted.length))
	for (const part of parts) {
		const words = typeof part === 'string' ? [part] : [part.before ?? '', part.empty ?? '', ...(part.begins ?? [])]
		const found = words.map((each) => findWords(key, each)).filter((at) => at >= 0)
		if (found.length > 0) return Math.min(...found)
	}
	return text.length
}

function findWords(key: string, words: string): number {
	const wanted = textKey(words.trim().replace(/^[,;:]\s*/, ''))
	if (wanted === '') return -1
	const pattern = new RegExp(`(?:^|[\\s,;:])${wanted.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}\\p{N}])`, 'u')
	return pattern.exec(key)?.index ?? -1
}

interface Place {
	readonly vocabulary: Vocabulary
	readonly table: number | undefined
}

function fill(kind: SentenceKind, blank: LineValue, filled: readonly Filled[], place: Place): ParsedLine {
	let line = blank
	const ordered = [...filled].sort((a, b) => Number(b.slot.type === 'table') - Number(a.slot.type === 'table'))
	for (const { slot, text } of ordered) {
		const value = readSlotText(slot, text, { ...place, table: tableOf(kind, line, place.table) })
		if ('message' in value) return { ok: false, message: value.message }
		line = writeSlot(line, slot.key, value.value)
	}
	return { ok: true, line }
}

type SlotReading = { readonly value: unknown } | { readonly message: string }

/** What a slot holds, from the words that stand for it. */
export function readSlotText(slot: Slot, text: string, place: Place): SlotReading {
	const { vocabulary } = place
	switch (slot.type) {
		case 'table':
			return byName(text, vocabulary.tables, (each) => each.name, 'table')
		case 'role':
			return byName(text, vocabulary.roles, (each) => each.name, 'role')
		case 'screen':
			return byName(text, vocabulary.screens, (each) => each.title, 'screen')
		case 'column':
			return byName(text, columnsOf(place), (each) => each.name, 'column')
		case 'columns':
			return readColumns(text, place)
		case 'sort': {
			const descending = /\b(last|latest|largest|highest|newest) first$|\bz to a$/i.test(text)
			const name = text.replace(/,?\s*(\w+ first|a to z|z to a)$/i, '')
			const column = byName(name, columnsOf(place), (each) => each.name, 'column')
			return 'message' in column ? column : { value: { column: column.value, descending } }
		}
		case 'verbs':
			return readVerbs(text)
		case 'column scope':
			return readScope(text, place)
		case 'does':
			return readDoes(text, vocabulary)
		default:
			return { value: text }
	}
}

function columnsOf({ vocabulary, table }: Place) {
	return vocabulary.tables.find((each) => each.id === table)?.columns ?? []
}

function byName<T extends { id: number | string }>(
	text: string,
	list: readonly T[],
	name: (each: T) => string,
	what: string
): SlotReading {
	const key = textKey(text)
	const found = list.find((each) => textKey(name(each)) === key)
	if (found) return { value: found.id }
	const near = findNearest(text, list.map(name))
	return { message: `There is no ${what} "${text}".` + (near ? ` Did you mean "${near}"?` : '') }
}

function readColumns(text: string, place: Place): SlotReading {
	const ids: unknown[] = []
	for (const name of text.split(/\s*,\s*|\s+and\s+/)) {
		const column = byName(name, columnsOf(place), (each) => each.name, 'column')
		if ('message' in column) return column
		ids.push(column.value)
	}
	return { value: ids }
}

function readVerbs(text: string): SlotReading {
	const words = text.toLowerCase().split(/\s*,\s*|\s+and\s+|\s+/)
	const unknown = words.find((word) => !(VERBS as readonly string[]).includes(word))
	return unknown === undefined
		? { value: words }
		: { message: `"${unknown}" is nothing one may do. Choose from ${VERBS.join(', ')}.` }
}

function readScope(text: string, place: Place): SlotReading {
	const match = /^(only|all columns but|all but)\s+(.+)$/i.exec(text)
	if (!match) return { value: { kind: 'all' } }
	const columns = readColumns(match[2] ?? '', place)
	if ('message' in columns) return columns
	return { value: { kind: match[1]?.toLowerCase() === 'only' ? 'only' : 'except', columns: columns.value } }
}

function readDoes(text: string, vocabulary: Vocabulary): SlotReading {
	const match = /^(opens?|runs?)\s+(.+)$/i.exec(text)
	const name = match?.[2] ?? text
	if (match?.[1]?.toLowerCase().startsWith('run')) {
		const routine = byName(name, vocabulary.routines, (each) => each.name, 'routine')
		return 'message' in routine ? routine : { value: { kind: 'run', routine: routine.value } }
	}
	const screen = byName(name, vocabulary.screens, (each) => each.title, 'screen')
	return 'message' in screen ? screen : { value: { kind: 'open', screen: screen.value } }
}
