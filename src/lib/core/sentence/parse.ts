/**
 * Reads a typed sentence as a line: the words of the kind must stand there in their order, what stands between them
 * fills the slots. What is left out keeps its blank; a name that is not known is said, with the nearest one.
 */
import { textKey } from '../text/key.ts'
import { readExact } from './exact.ts'
import { writeSlot } from './line-values.ts'
import { tableOf } from './print.ts'
import { entryOfSlot } from './slots/all.ts'
import type { SlotPlace } from './slots/entry.ts'
import type { LineValue, ParsedLine, Sentence, SentenceKind, Slot } from './types.ts'
import type { Vocabulary } from './vocabulary.ts'

/** The line that a sentence says, by the kind with whose first words it begins; by the longest of them, where several do. */
export function parseLine(
	text: string,
	kinds: readonly Sentence[],
	vocabulary: Vocabulary,
	table?: number
): ParsedLine {
	const typed = text.trim()
	const exact = readExact(typed, kinds, vocabulary, table)
	if (exact) return exact
	for (const { kind, blank } of kinds.toSorted((a, b) => headOf(b).length - headOf(a).length)) {
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

/** The words with which a sentence of the kind must begin. */
function headOf({ kind: { parts } }: Sentence): string {
	return typeof parts[0] === 'string' ? parts[0].trim() : ''
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
		const begun = part.before ? takeWords(rest, part.before) : rest
		if (begun === undefined && part.clause !== undefined) continue
		const bare = begun ?? rest
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
		// A clause says something: its words at the end, or before a comma, are those of a name: `What for`.
		const says = typeof part !== 'string' && part.clause !== undefined
		const found = words.map((each) => findWords(key, each, says)).filter((at) => at >= 0)
		if (found.length > 0) return Math.min(...found)
	}
	return text.length
}

function findWords(key: string, words: string, says: boolean): number {
	const wanted = textKey(words.trim().replace(/^[,;:]\s*/, ''))
	if (wanted === '') return -1
	const pattern = new RegExp(
		`(?:^|[\\s,;:])${wanted.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}\\p{N}])${says ? '(?=\\s*[^\\s,;])' : ''}`,
		'u'
	)
	return pattern.exec(key)?.index ?? -1
}

function fill(kind: SentenceKind, blank: LineValue, filled: readonly Filled[], place: SlotPlace): ParsedLine {
	let line = blank
	const ordered = [...filled].sort((a, b) => Number(b.slot.type === 'table') - Number(a.slot.type === 'table'))
	for (const { slot, text } of ordered) {
		const value = entryOfSlot(slot.type).read(text, { ...place, table: tableOf(kind, line, place.table) })
		if ('message' in value) return { ok: false, message: value.message }
		line = writeSlot(line, slot.key, value.value)
	}
	return { ok: true, line }
}
