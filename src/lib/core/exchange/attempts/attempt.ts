/** One type tried on the values of a column: what every attempt takes, gives and shares. */
import { findKind } from '../../table/kinds/all.ts'
import { TYPED } from '../../model/writing.ts'
import type { Column, ColumnTypeName } from '../../model/table.ts'
import type { Collected } from '../collect.ts'
import type { ColumnGuess, Doubt } from '../guess.ts'

/** `filled`: every value once, with how often and where; never one that stands for nothing. Nothing given: it is another type. */
export type Attempt = (plain: Guess, filled: readonly Filled[]) => Guess | undefined

export type Guess = Omit<ColumnGuess, 'blank'>

export type Filled = Readonly<Collected>

/** The values that a test refuses, or undefined if there are too many for the type to be meant. */
export function strays(filled: readonly Filled[], test: (text: string) => boolean): Filled[] | undefined {
	let allowed = Math.floor(filled.reduce((all, each) => all + each.count, 0) * 0.03)
	const refused: Filled[] = []
	for (const each of filled) {
		if (test(each.text)) continue
		allowed -= each.count
		// Most types are ruled out by the first few values; a long column need not be read to its end for each.
		if (allowed < 0) return undefined
		refused.push(each)
	}
	return refused
}

export function unreadable(refused: readonly Filled[]): Doubt[] {
	return refused.map(({ text, rows }) => ({ kind: 'unreadable', text, rows }))
}

/** The type that its kind's own reading finds in nearly every value; `wanted`: only in a column of such a name. */
export const byKind =
	(type: ColumnTypeName, wanted?: RegExp): Attempt =>
	(plain, filled) => {
		if (wanted && !wanted.test(plain.name)) return undefined
		const kind = findKind(type)
		const column: Column = { id: 0, name: plain.name, type }
		const refused = strays(filled, (text) => kind?.read(text, column, TYPED).ok ?? false)
		return refused && { ...plain, type, doubts: unreadable(refused) }
	}
