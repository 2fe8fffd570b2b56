import { textKey } from '../../text/key.ts'
import { findNearest } from '../../text/nearest.ts'
import type { Column } from '../../model/table.ts'
import { read, refuse, type ColumnKind, type Reading } from './kind.ts'

/** Kept as the number of the choice in the builder's order, from 1. */
export const choice: ColumnKind = {
	name: 'choice',
	read: (text, column) => take(text, column),
	check: (value, column) =>
		typeof value === 'string' ? take(value.trim(), column) : refuse('One of the choices was expected here.'),
	toStored: (value, column) => numberOf(String(value), column),
	fromStored: (stored, column) => column.choices?.[Number(stored) - 1] ?? null
}

function take(text: string, column: Column): Reading {
	const found = column.choices?.[numberOf(text, column) - 1]
	if (found !== undefined) return read(found)
	const near = findNearest(text, column.choices ?? [])
	return refuse(`"${text}" is not one of the choices.` + (near ? ` Did you mean "${near}"?` : ''))
}

function numberOf(text: string, column: Column): number {
	const key = textKey(text)
	return (column.choices?.findIndex((label) => textKey(label) === key) ?? -1) + 1
}
