/** What the program must know of a kind of screen line, whatever it does with it. */
import type { Here } from '../../formula/check/check-call.ts'
import type { Line } from '../../access/types.ts'
import type { HeldKind } from '../../formula/check/rename.ts'
import type { Catalogue, Table } from '../../model/table.ts'
import type { Sentence } from '../../sentence/types.ts'
import type { Found } from '../../document/findings.ts'

/** As much of a document and its workspace as a line is checked against. */
export interface Around {
	readonly catalogue: Catalogue
	/** The lines of access. */
	readonly lines: readonly Line[]
	readonly hasRole: (id: number) => boolean
	readonly hasScreen: (id: string) => boolean
	/** Whether lines are there that screens share. */
	readonly hasShared: (id: string) => boolean
	/** Whether the line itself is shared by screens. */
	readonly isShared: boolean
	/** Whether the screen that the line stands on shows a list. */
	readonly hasList: boolean
	/** What a screen holds, by name. */
	readonly heldOn: (screen: string) => Here | undefined
	/** Whether a routine is there that a button starts. */
	readonly hasButtonRoutine: (id: string) => boolean
	/** Whether one is there that starts with a code. */
	readonly hasScanRoutine: (id: string) => boolean
	/** The table of the line that holds this one, where that has one. */
	readonly table: number | undefined
	/** The table of the row that goes in together with this line's: its formulas reach that row as `this`. */
	readonly outer: Table | undefined
	/** What is held on the screen, by name. */
	readonly here: Here | undefined
}

export interface Chosen {
	readonly name: string
	readonly kind: HeldKind
	/** A formula that stands over no row: what it is until somebody chooses. */
	readonly starts?: string
}

export interface LineEntry<L> {
	/** How it is printed, typed and begun; its slots say what it names. */
	readonly sentence: Sentence
	/** The kinds that it may hold; where none are named, no line goes into it. `parts`: all that stand on a screen by themselves. */
	readonly holds: 'parts' | readonly string[]
	/** Whether it stands only within a line that names its kind. */
	readonly isInner: boolean
	/** Whether a builder can add one. */
	readonly isAdded: boolean
	/** Whether its rows go in with the row of what holds it: formulas in it then reach that row as `this`. */
	readonly goesWithOuter: boolean
	/** The columns that staff can write by it. */
	written(line: L): readonly number[]
	/** What it orders rows by, so that an index can serve. */
	order(line: L): { readonly table: number; readonly column: number } | undefined
	/** What it lets be chosen or typed, or holds: what that is called for other lines of the screen, and of which kind it is. */
	chooses(line: L): Chosen | undefined
	/** Whether it shows or needs the row of its screen, which is then reached from a row alone. */
	showsRow(line: L): boolean
	/** What would not work, and what is to be looked at. */
	check(line: L, around: Around): Found[]
}

/** For a kind that neither holds lines nor touches rows. */
export const PLAIN_LINE = {
	holds: [],
	isInner: false,
	isAdded: true,
	goesWithOuter: false,
	written: () => [],
	order: () => undefined,
	chooses: () => undefined,
	showsRow: () => false,
	check: () => []
} as const satisfies Omit<LineEntry<never>, 'sentence'>
