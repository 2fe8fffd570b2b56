/**
 * Every type of slot that a sentence can have. A new one is its value's type here and its entry in the record; the compiler
 * asks for the rest, the editor on the Bench too.
 */
import type { ColumnScope, Verb } from '../../access/types.ts'
import { children, type Child } from './children.ts'
import { column, columns, scope, sort, type Sort } from './columns.ts'
import { formulaText, oneOf, pieces, plainText, type SlotEntry } from './entry.ts'
import { does, role, screen, table, type Does } from './named.ts'
import { verbs } from './verbs.ts'

export const WHEN = ['added', 'changed', 'added or changed'] as const

/** What stands in a slot of each type, where it is not blank. */
export interface SlotValues {
	text: string
	/** One line of words with formulas in braces, and several. */
	subject: string
	message: string
	/** A formula that is true or not. */
	condition: string
	/** A formula that gives a value. */
	formula: string
	/** A formula that names a person. */
	person: string
	table: number
	column: number
	columns: readonly number[]
	sort: Sort
	role: number
	verbs: readonly Verb[]
	'column scope': ColumnScope
	screen: string
	does: Does
	when: (typeof WHEN)[number]
	children: readonly Child[]
}

export type SlotType = keyof SlotValues

export const SLOTS: { readonly [T in SlotType]: SlotEntry<SlotValues[T]> } = {
	text: plainText,
	subject: pieces,
	message: pieces,
	condition: formulaText,
	formula: formulaText,
	person: formulaText,
	table,
	column,
	columns,
	sort,
	role,
	verbs,
	'column scope': scope,
	screen,
	does,
	when: oneOf(WHEN),
	children
}

/** What is known of a type of slot. */
export function entryOfSlot(type: SlotType): SlotEntry<unknown> {
	// Type by type the record holds this; what stands in a line is what was read for the slot or chosen in it.
	return SLOTS[type] as SlotEntry<unknown>
}
