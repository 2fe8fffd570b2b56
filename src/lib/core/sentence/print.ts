/** Prints a line as words and slots, with today's names. */
import { readSlot } from './line-values.ts'
import { entryOfSlot } from './slots/all.ts'
import type { SlotPlace } from './slots/entry.ts'
import type { LineValue, Segment, SentenceKind, Slot } from './types.ts'
import type { Vocabulary } from './vocabulary.ts'

/** A line as people read it: words, and slots with their text. `table`: what it is about, where the line does not say. */
export function printLine(kind: SentenceKind, line: LineValue, vocabulary: Vocabulary, table?: number): Segment[] {
	const about = tableOf(kind, line, table)
	return (kind.shown?.(line) ?? kind.parts).flatMap((part): Segment[] => {
		if (typeof part === 'string') return [{ kind: 'words', text: part }]
		const text = printSlot(part, readSlot(line, part.key), { vocabulary, table: about })
		const filled = text !== ''
		if (!filled && part.clause !== undefined) return []
		const shown = filled ? text : (part.empty ?? part.title)
		const mono = filled && entryOfSlot(part.type).isFormula
		const slot: Segment = { kind: 'slot', slot: part, text: shown, filled: filled || part.empty !== undefined, mono }
		return filled && part.before ? [{ kind: 'words', text: part.before }, slot] : [slot]
	})
}

/** The whole sentence as plain text, for reading aloud, comparing and the history. */
export function printText(kind: SentenceKind, line: LineValue, vocabulary: Vocabulary, table?: number): string {
	return printLine(kind, line, vocabulary, table)
		.map((segment) => segment.text)
		.join('')
}

/** The clauses that a line could have yet. */
export function openClauses(kind: SentenceKind, line: LineValue): Slot[] {
	return (kind.shown?.(line) ?? kind.parts).filter(
		(part): part is Slot => typeof part !== 'string' && part.clause !== undefined && isBlank(readSlot(line, part.key))
	)
}

/** The table that a line's columns belong to. */
export function tableOf(kind: SentenceKind, line: LineValue, table?: number): number | undefined {
	const own = kind.tableKey === undefined ? undefined : readSlot(line, kind.tableKey)
	return typeof own === 'number' ? own : table
}

/** What stands in a slot; empty where it is blank. */
export function printSlot(slot: Slot, value: unknown, place: SlotPlace): string {
	return isBlank(value) ? '' : entryOfSlot(slot.type).print(value, place)
}

/** What a slot holds after it is emptied. */
export function emptied(value: unknown): unknown {
	if (Array.isArray(value)) return []
	return typeof value === 'string' ? '' : null
}

/** Of a slot with nothing in it. A list without members is blank too. */
export function isBlank(value: unknown): boolean {
	return value === undefined || value === null || value === '' || (Array.isArray(value) && value.length === 0)
}
