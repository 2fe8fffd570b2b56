/** What the program must know of a type of slot: how what stands in it is printed, and read again. */
import type { MapColumn } from '../../model/map-columns.ts'
import { mapPieces } from '../../text/pieces.ts'
import type { Vocabulary } from '../vocabulary.ts'

/** The names of today, and the table that the line's columns belong to. */
export interface SlotPlace {
	readonly vocabulary: Vocabulary
	readonly table: number | undefined
}

/** The number of the same thing elsewhere. */
export type MapNumber = (id: number) => number

export type Reading<V> = { readonly value: V } | { readonly message: string }

export interface SlotEntry<V> {
	/** Whether it is set as formulas are. */
	readonly isFormula: boolean
	/** For reading: empty where it is blank, in words where what it names is gone. */
	print(value: V, place: SlotPlace): string
	/** So that `readExact` gives the same, whatever stands in the names. */
	printExact(value: V, place: SlotPlace): string
	/** What somebody typed; a name that is not known is said, with the nearest one. */
	read(text: string, place: SlotPlace): Reading<V>
	readExact(text: string, place: SlotPlace): Reading<V>
	/** The tables, and the columns, that it names. */
	tables?(value: V): readonly number[]
	columns?(value: V): readonly number[]
	/** The files that it shows, by the SHA-256 of their bytes. */
	files?(value: V): readonly string[]
	/** Its columns mapped: what can do without one is left without it, what cannot stays as it stands. */
	mapColumns?(value: V, map: MapColumn): V | null
	/** Its tables, and its roles, by other numbers. */
	mapTables?(value: V, map: MapNumber): V
	mapRoles?(value: V, map: MapNumber): V
	/** Its formulas mapped, those inside a text too. */
	mapFormulas?(value: V, map: (text: string) => string): V
	/** What can be chosen for it, where that is one of a few. */
	choices?(place: SlotPlace): readonly Choice<V>[]
	/** What it begins anew with once its line is about another table, whose columns these are; left as it stands without. */
	onTable?(columns: readonly number[]): V | null
}

export interface Choice<V> {
	readonly value: V
	readonly text: string
}

/** Text comes back as it stands. */
export const plainText: SlotEntry<string> = {
	isFormula: false,
	print: (value) => value,
	printExact: (value) => value,
	read: (text) => ({ value: text }),
	readExact: (text) => ({ value: text })
}

export const formulaText: SlotEntry<string> = {
	...plainText,
	isFormula: true,
	mapFormulas: (value, map) => map(value)
}

/** Words with formulas in braces. */
export const pieces: SlotEntry<string> = { ...plainText, mapFormulas: mapPieces }

/** A whole number above nought. */
export const count: SlotEntry<number> = {
	isFormula: false,
	print: (value) => String(value),
	printExact: (value) => String(value),
	read: readCount,
	readExact: readCount
}

function readCount(text: string): Reading<number> {
	const [digits] = /^\d{1,6}/.exec(text.trim()) ?? []
	return digits === undefined || Number(digits) < 1
		? { message: `"${text.trim()}" is no number of rows. Write it in digits, such as 10.` }
		: { value: Number(digits) }
}

/** A slot whose value is one of some words. */
export function oneOf<V extends string>(words: readonly V[]): SlotEntry<V> {
	const read = (text: string): Reading<V> => {
		const found = words.find((word) => word.toLowerCase() === text.trim().toLowerCase())
		return found === undefined ? { message: `"${text}" is none of ${words.join(', ')}.` } : { value: found }
	}
	const choices = () => words.map((word) => ({ value: word, text: word }))
	return { isFormula: false, print: (value) => value, printExact: (value) => value, read, readExact: read, choices }
}
