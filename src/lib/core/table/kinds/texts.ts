/**
 * A base for types that are kept as the text they are: each says in one sentence what it takes.
 */
import type { Column, ColumnTypeName } from '../../model/table.ts'
import { read, refuse, type ColumnKind, type Reading } from './kind.ts'

const MAX_TEXT = 2_000

interface TextRules {
	readonly name: ColumnTypeName
	readonly max?: number
	/** Brings the text into its one form, or gives undefined where it is not of this type. */
	readonly normalize?: (text: string, column: Column) => string | undefined
	readonly remedy?: (text: string) => string
}

export function textKind({ name, max = MAX_TEXT, normalize = (text) => text, remedy }: TextRules): ColumnKind {
	const take = (text: string, column: Column): Reading => {
		if (text.length > max) return refuse(`This is ${text.length} characters long; ${max} is the most that fit.`)
		const normal = normalize(text, column)
		if (normal === undefined) return refuse(remedy?.(text) ?? `"${text}" is not of this kind.`)
		return read(normal === '' ? null : normal)
	}
	return {
		name,
		read: (text, column) => take(text, column),
		check: (value, column) =>
			typeof value === 'string' ? take(value.trim(), column) : refuse('A text was expected here.'),
		toStored: (value) => String(value),
		fromStored: (stored) => String(stored)
	}
}
