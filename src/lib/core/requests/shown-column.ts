/** A column as pages know it. */
import type { TypeKind } from '../model/formula.ts'
import type { ColumnTypeName, OnRemoval } from '../model/table.ts'
import type { Conventions } from '../model/writing.ts'

/** What a page needs to know of a column to show and edit its cells. */
export interface ShownColumn {
	readonly id: number
	readonly name: string
	readonly type: ColumnTypeName
	/** The type of a computed column's values. */
	readonly shows?: TypeKind
	readonly unit?: string
	/** Whether a computed column gives amounts of money, of that unit. */
	readonly isMoney?: boolean
	readonly places?: number
	readonly choices?: readonly string[]
	readonly to?: number
	readonly required?: boolean
	readonly unique?: boolean
	readonly uniqueWithin?: number
	readonly onRemoval?: OnRemoval
	readonly about?: string
	readonly numbering?: string
	readonly timeZone?: string
	readonly writing?: Conventions
	/** The default as text, and the name of the set of rows that point to a target; given to its keepers only. */
	readonly otherwise?: string
	readonly reverseName?: string
	/** The formula of a computed column, as text; given to its keepers only. */
	readonly formula?: string
	readonly stored?: boolean
	/** A named condition: for choosing rows, not for looking at. */
	readonly condition?: boolean
}
