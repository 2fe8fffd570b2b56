import { entryOfSlot } from './slots/all.ts'
import type { LineValue, SentenceKind } from './types.ts'

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

/** The line about another table: what named columns of the old one starts anew; formulas stay, to be looked at. */
export function chooseTable<T extends object>(kind: SentenceKind, line: T, { key, table, columns }: TableChange): T {
	let next = writeSlot(line, key, table)
	for (const part of kind.parts) {
		const anew = typeof part === 'string' ? undefined : entryOfSlot(part.type).onTable
		if (typeof part !== 'string' && anew) next = writeSlot(next, part.key, anew(columns))
	}
	return next
}

export interface TableChange {
	readonly key: string
	readonly table: number
	/** The new table's columns, in order. */
	readonly columns: readonly number[]
}
