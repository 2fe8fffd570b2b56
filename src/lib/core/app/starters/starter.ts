/** An app for a common job, to begin with: its tables, who works with them, and what is added to the screens that are made of them. */
import type { ColumnTypeName } from '../../model/table.ts'
import type { AppInput, ScreenInput } from '../document.ts'

export interface StarterColumn {
	readonly name: string
	readonly type: ColumnTypeName
	readonly required?: boolean
	readonly choices?: readonly string[]
	readonly unit?: string
	readonly places?: number
	/** A table of the starter by its name, or `People`. */
	readonly to?: string
	/** What the rows that point there are called, seen from there. */
	readonly reverseName?: string
	/** A formula for what a new row gets. */
	readonly otherwise?: string
	/** Of a computed column, added once all tables are there. */
	readonly formula?: string
	readonly condition?: boolean
}

export interface StarterTable {
	readonly name: string
	readonly columns: readonly StarterColumn[]
}

/** Finds what was made, by its name: a table, or a column of a table. */
export type Place = (table: string, column?: string) => number

export type StarterLine = NonNullable<ScreenInput['lines']>[number]

export interface Starter {
	readonly id: string
	readonly name: string
	/** What it is for, as it is found by. */
	readonly about: string
	/** Other words that somebody may look for it by. */
	readonly words: string
	readonly colour: AppInput['colour']
	readonly tables: readonly StarterTable[]
	/** Lines put into the first list of a table, by its name; `newId` gives their ids. */
	readonly inLists?: (place: Place, newId: () => string) => Readonly<Record<string, readonly StarterLine[]>>
	readonly screens?: (place: Place, newId: () => string) => readonly ScreenInput[]
	readonly signoffs?: (place: Place, newId: () => string) => AppInput['signoffs']
}
