import type { LineValue, SentenceKind } from './types.ts'

/** The value at a slot's key; `start.where` goes into the object at `start`. */
export function readSlot(line: LineValue, key: string): unknown {
	let value: unknown = line
	for (const part of key.split('.')) value = (value as Record<string, unknown> | undefined | null)?.[part]
	return value
}

/** The line with another value at a slot's key; the line itself stays as it is. */
export function writeSlot<T extends object>(line: T, key: string, value: unknown): T {
	const [first = '', ...rest] = key.split('.')
	const inner = (line as Record<string, unknown>)[first]
	const next = rest.length === 0 ? value : writeSlot((inner ?? {}) as object, rest.join('.'), value)
	return { ...line, [first]: next }
}

const SHOWN_AT_FIRST = 4

/** The line about another table: what named columns of the old one starts anew; formulas stay, to be looked at. */
export function chooseTable<T extends object>(kind: SentenceKind, line: T, { key, table, columns }: TableChange): T {
	let next = writeSlot(line, key, table)
	for (const part of kind.parts) {
		if (typeof part === 'string') continue
		if (part.type === 'columns') next = writeSlot(next, part.key, columns.slice(0, SHOWN_AT_FIRST))
		if (part.type === 'sort') next = writeSlot(next, part.key, null)
		if (part.type === 'column') next = writeSlot(next, part.key, columns[0] ?? null)
		if (part.type === 'children') next = writeSlot(next, part.key, [])
		if (part.type === 'column scope') next = writeSlot(next, part.key, { kind: 'all' })
	}
	return next
}

export interface TableChange {
	readonly key: string
	readonly table: number
	/** The new table's columns, in order. */
	readonly columns: readonly number[]
}
