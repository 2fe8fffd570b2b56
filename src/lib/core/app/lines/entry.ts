/** What the program must know of a kind of screen line, whatever it does with it. */
import type { Line } from '../../access/types.ts'
import type { Catalogue } from '../../model/table.ts'
import type { Sentence } from '../../sentence/types.ts'
import type { Found } from '../../document/findings.ts'
import type { MapColumn } from '../../document/map-columns.ts'

/** As much of a document and its workspace as a line is checked against. */
export interface Around {
	readonly catalogue: Catalogue
	/** The lines of access. */
	readonly lines: readonly Line[]
	readonly hasScreen: (id: string) => boolean
	/** Whether a routine is there that a button starts. */
	readonly hasButtonRoutine: (id: string) => boolean
}

export interface LineEntry<L> {
	/** How it is printed, typed and begun. */
	readonly sentence: Sentence
	/** Its formulas, each over a row of the table that is named beside it, mapped. */
	mapFormulas(line: L, map: (text: string, table: number) => string): L
	/** Every table that it names. */
	tables(line: L): readonly number[]
	/** Every column that it names: shown, asked for or ordered by. */
	columns(line: L): readonly number[]
	/** Those of them that staff can write by it. */
	written(line: L): readonly number[]
	/** The columns that it names, mapped; what cannot do without one is left as it stands. */
	mapColumns(line: L, map: MapColumn): L
	/** What it orders rows by, so that an index can serve. */
	order(line: L): { readonly table: number; readonly column: number } | undefined
	/** Whether a screen that holds it shows one row, and is reached from there alone. */
	readonly showsRow: boolean
	/** What would not work, and what is to be looked at. */
	check(line: L, around: Around): Found[]
}
