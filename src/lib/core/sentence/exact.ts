/**
 * Lines as text that comes back the same: the words of the sentence as they are, what stands in each slot in square brackets,
 * a closing one inside doubled: `List of [Moorings] where [Arrears > 0], by []; each row shows [Code, "Depth, low"]`. A line is
 * told from the next by its end alone, so what stands in a slot may have lines of its own.
 */
import { readSlot, writeSlot } from './line-values.ts'
import { isBlank, tableOf } from './print.ts'
import { entryOfSlot } from './slots/all.ts'
import type { SlotPlace } from './slots/entry.ts'
import type { LineValue, ParsedLine, Part, Sentence, SentenceKind, Slot } from './types.ts'
import type { Vocabulary } from './vocabulary.ts'

export function printExact(kind: SentenceKind, line: LineValue, vocabulary: Vocabulary, table?: number): string {
	const place = { vocabulary, table: tableOf(kind, line, table) }
	return kind.parts
		.map((part) => {
			if (typeof part === 'string') return part
			const value = readSlot(line, part.key)
			const text = isBlank(value) ? '' : entryOfSlot(part.type).printExact(value, place)
			if (text === '' && part.clause !== undefined) return ''
			return text === '' ? '[]' : `${part.before ?? ''}[${text.replaceAll(']', ']]')}]`
		})
		.join('')
}

/** The line that such a text says; undefined where it is no exact text of any of these kinds. */
export function readExact(
	text: string,
	kinds: readonly Sentence[],
	vocabulary: Vocabulary,
	table?: number
): ParsedLine | undefined {
	const found = readExactAt(text, 0, kinds, { vocabulary, table })
	return found?.end === text.length ? found.parsed : undefined
}

/**
 * The line that begins at a place of a text, and where it ends: before a new line, or with the text. Where `problems` are taken, a
 * slot that names what is not known is left blank and said there; otherwise it refuses the line.
 */
export function readExactAt(
	text: string,
	at: number,
	kinds: readonly Sentence[],
	place: SlotPlace & { readonly problems?: string[] }
): { readonly parsed: ParsedLine; readonly end: number } | undefined {
	for (const { kind, blank } of kinds) {
		const found = matchExact(kind.parts, text, at)
		if (found) return { parsed: fillExact(kind, blank, found.filled, place), end: found.end }
	}
	return undefined
}

interface Filled {
	readonly slot: Slot
	readonly text: string
}

/** What stands in the brackets, where the words between them are those of the kind, to the end of a line. */
function matchExact(
	parts: readonly Part[],
	text: string,
	start: number
): { readonly filled: readonly Filled[]; readonly end: number } | undefined {
	const filled: Filled[] = []
	let at = start
	for (const part of parts) {
		const words = typeof part === 'string' ? part : (part.before ?? '')
		const stands = text.startsWith(words, at)
		if (typeof part !== 'string' && part.clause !== undefined && !(stands && text[at + words.length] === '[')) continue
		if (stands) at += words.length
		// Words before a slot go with what stands in it, and may be left out with that.
		else if (typeof part === 'string') return undefined
		if (typeof part === 'string') continue
		const inside = readBrackets(text, at)
		if (inside === undefined) return undefined
		filled.push({ slot: part, text: inside.text })
		at = inside.end
	}
	return at === text.length || text[at] === '\n' ? { filled, end: at } : undefined
}

/** What stands in the brackets that open here, and where they end. */
function readBrackets(text: string, at: number): { readonly text: string; readonly end: number } | undefined {
	const [all, inside] = BRACKETS.exec(text.slice(at)) ?? []
	return all === undefined || inside === undefined
		? undefined
		: { text: inside.replaceAll(']]', ']'), end: at + all.length }
}

const BRACKETS = /^\[((?:[^\]]|\]\])*)\](?!\])/

function fillExact(
	kind: SentenceKind,
	blank: LineValue,
	filled: readonly Filled[],
	{ problems, ...place }: SlotPlace & { readonly problems?: string[] }
): ParsedLine {
	let line = blank
	// Names of columns are those of the table, which comes first.
	const ordered = [...filled].sort((a, b) => Number(b.slot.type === 'table') - Number(a.slot.type === 'table'))
	for (const { slot, text } of ordered) {
		if (text === '') continue
		const reading = entryOfSlot(slot.type).readExact(text, { ...place, table: tableOf(kind, line, place.table) })
		if ('value' in reading) line = writeSlot(line, slot.key, reading.value)
		else if (problems) problems.push(reading.message)
		else return { ok: false, message: reading.message }
	}
	return { ok: true, line }
}
