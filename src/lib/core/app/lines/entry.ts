/** What the program must know of a kind of screen line, whatever it does with it. */
import type { Line } from '../../access/types.ts'
import type { Catalogue } from '../../model/table.ts'
import type { Sentence } from '../../sentence/types.ts'
import type { Found } from '../../document/findings.ts'

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
	/** How it is printed, typed and begun; its slots say what it names. */
	readonly sentence: Sentence
	/** The columns that staff can write by it. */
	written(line: L): readonly number[]
	/** What it orders rows by, so that an index can serve. */
	order(line: L): { readonly table: number; readonly column: number } | undefined
	/** Whether a screen that holds it shows one row, and is reached from there alone. */
	readonly showsRow: boolean
	/** What would not work, and what is to be looked at. */
	check(line: L, around: Around): Found[]
}
