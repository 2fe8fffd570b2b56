import type { Plain } from '../../model/formula.ts'
import type { StoredValue } from '../storage.ts'
import type { Column, ColumnTypeName } from '../../model/table.ts'
import type { Writing } from '../../model/writing.ts'

export type Reading = { readonly ok: true; readonly value: Plain } | { readonly ok: false; readonly message: string }

/** One type of column: how its values are read from text, checked and kept; how they are shown stands in `show-value.ts`. A blank is `null` throughout. */
export interface ColumnKind {
	readonly name: ColumnTypeName
	/** Reads text that a person typed or a file holds; it has been trimmed and is not empty. */
	read(text: string, column: Column, writing: Writing): Reading
	/** Checks a value that came from outside the program; never `null`. */
	check(value: unknown, column: Column): Reading
	toStored(value: NonNullable<Plain>, column: Column): StoredValue
	fromStored(stored: number | string, column: Column): Plain
}

export const read = (value: Plain): Reading => ({ ok: true, value })
export const refuse = (message: string): Reading => ({ ok: false, message })
