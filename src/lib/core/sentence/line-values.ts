import { entryOfSlot } from './slots/all.ts'
import type { LineValue, SentenceKind, Slot } from './types.ts'
import type { Vocabulary } from './vocabulary.ts'

/** Part of a document as its sentence sees it. */
export function asLine(part: object): LineValue {
	// Every object is read by keys; an interface only cannot say so.
	return part as LineValue
}

/** What a sentence made of a part of a document, as that part: its slots write nothing but values of their types. */
export function fromLine<T>(line: LineValue): T {
	return line as T
}

/** The value at a slot's key; `start.where` goes into the object at `start`. */
export function readSlot(line: LineValue, key: string): unknown {
	let value: unknown = line
	// Keys of slots are paths into documents, which hold records and values.
	for (const part of key.split('.')) value = (value as Record<string, unknown> | undefined | null)?.[part]
	return value
}

/** The line with another value at a slot's key; the line itself stays as it is. */
export function writeSlot<T extends object>(line: T, key: string, value: unknown): T {
	const [first = '', ...rest] = key.split('.')
	// As above.
	const inner = (line as Record<string, unknown>)[first]
	// A part that lies deeper is a record, or is not there yet.
	const next = rest.length === 0 ? value : writeSlot((inner ?? {}) as object, rest.join('.'), value)
	return { ...line, [first]: next }
}

/** The line with a slot filled anew. About another table, what named columns of the old one starts anew too. */
export function fillSlot(
	kind: SentenceKind,
	line: LineValue,
	{ key, type }: Slot,
	value: unknown,
	tables: Tables
): LineValue {
	if (type !== 'table' || value === readSlot(line, key)) return writeSlot(line, key, value)
	const columns = tables.find(({ id }) => id === value)?.columns.map(({ id }) => id) ?? []
	return chooseTable(kind, line, { key, table: Number(value), columns })
}

type Tables = Vocabulary['tables']

/** Formulas stay, to be looked at. */
function chooseTable<T extends object>(kind: SentenceKind, line: T, { key, table, columns }: TableChange): T {
	let next = writeSlot(line, key, table)
	for (const part of kind.parts) {
		const anew = typeof part === 'string' ? undefined : entryOfSlot(part.type).onTable
		if (typeof part !== 'string' && anew) next = writeSlot(next, part.key, anew(columns))
	}
	return next
}

interface TableChange {
	readonly key: string
	readonly table: number
	/** The new table's columns, in order. */
	readonly columns: readonly number[]
}
