/** Values that are held under a name, on a screen or by a routine: what kind of thing each is, and whether another fits. */
import type { HeldKind } from '../formula/check/rename.ts'
import type { Type } from '../model/formula.ts'
import type { HELD_KINDS } from './slots/all.ts'
import { mistake, type Found } from '../document/findings.ts'

/** What a line says of a value that it holds. */
export interface HeldWords {
	readonly what: (typeof HELD_KINDS)[number]
	/** Of which table it is, for a row. */
	readonly rows: number | null
}

const VALUES = { 'a text': 'text', 'a number': 'number', 'a date': 'date', 'yes or no': 'yesno' } as const

/** Undefined for a row of which the table is not said yet. */
export function kindOfHeld({ what, rows }: HeldWords): HeldKind | undefined {
	if (what !== 'a row') return { type: VALUES[what] }
	return rows === null ? undefined : { table: rows }
}

/** Whether something of a type can be held as one of another. */
export function fitsHeld(given: Type, wanted: Type): boolean {
	if (given.kind === 'blank') return true
	if (given.kind === 'row' && wanted.kind === 'row') return given.table.id === wanted.table.id
	return given.kind === wanted.kind
}

/** What is wrong with a name, as formulas would read it after "here.". */
export function checkHeldName(name: string): Found[] {
	return /^\p{L}[\p{L}\p{N}_]*$/u.test(name)
		? []
		: mistake(`"${name}" cannot follow "here." in a formula. Write one word, such as mooring.`)
}
