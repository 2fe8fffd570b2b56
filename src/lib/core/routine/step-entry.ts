/** What the program must know of a kind of step and of a kind of start, whatever it does with it. */
import type { Found } from '../document/findings.ts'
import type { Catalogue, Table } from '../model/table.ts'
import type { Sentence } from '../sentence/types.ts'

export interface StepEntry<S> {
	/** How it is printed, typed and begun; its slots say what it names. */
	readonly sentence: Sentence
	/** What is said where nobody presses, if it acts as whoever pressed and so has its place after a press alone. */
	readonly withoutPresser: string | undefined
	/** The columns of the row that it writes; it cannot do without them. */
	written(step: S): readonly number[]
	/** What would not work on a row of the table. */
	check(step: S, table: Table, catalogue: Catalogue): Found[]
}

export interface StartEntry<S> {
	readonly sentence: Sentence
	/** Whether somebody presses it, on a row that they see; else it learns of rows by itself, which is its keeper's to release. */
	readonly isPressed: boolean
	/** A fresh one, on a table. */
	begin(table: number): S
	check(start: S, table: Table, catalogue: Catalogue): Found[]
}
