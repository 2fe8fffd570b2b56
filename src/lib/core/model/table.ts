/**
 * What a builder's tables are made of. The store's names follow from the numbers: table 5 is `t5`, column 17 is `c17`,
 * and neither number is ever used again, so renaming moves no data.
 */
import type { Expr } from './formula.ts'
import type { Conventions } from './writing.ts'

export interface Catalogue {
	readonly tables: ReadonlyMap<number, Table>
	/** The people table, whose row is `me`. */
	readonly people: Table
	/** Where the workspace is: an instant has its date and its time of day there. */
	readonly timeZone: string
	/** How dates and figures are written there. */
	readonly writing: Conventions
}

export interface Table {
	readonly id: number
	readonly name: string
	/** People who may see all of it, write its lines and look at it as others see it. */
	readonly keepers: readonly number[]
	/** The column by which a row is known to people. */
	readonly label: number
	readonly columns: readonly Column[]
	readonly about?: string
	/** What must hold of every row, and what is said where it does not. */
	readonly checks: readonly { readonly expr: Expr; readonly message: string }[]
	/** References in other tables that point here. */
	readonly backReferences: readonly BackReference[]
	/** Columns by which lines let people see rows as theirs (`diver = me`): totals of this table are kept for each value. */
	readonly comparedWithMe?: readonly Column[]
}

/** Every type of column, in the order in which they are offered. */
export const COLUMN_TYPES = [
	'text',
	'long text',
	'whole number',
	'decimal',
	'money',
	'percent',
	'yes/no',
	'date',
	'date and time',
	'time',
	'duration',
	'choice',
	'several choices',
	'reference',
	'email',
	'phone',
	'web address',
	'code',
	'place',
	'photo',
	'file',
	'ink',
	'signature',
	'computed'
] as const

export type ColumnTypeName = (typeof COLUMN_TYPES)[number]

/** Those whose values are not typed in: they point elsewhere, are worked out, or hold a file. */
const UNTYPED: ReadonlySet<string> = new Set(['reference', 'computed', 'photo', 'file', 'ink', 'signature'])

/** Those whose values can be typed in as they are. */
export const TYPED_TYPES = COLUMN_TYPES.filter((type) => !UNTYPED.has(type))

export interface Column {
	readonly id: number
	readonly name: string
	readonly type: ColumnTypeName
	/** Digits after the point that are kept, as a scaled whole number; undefined for a free decimal. */
	readonly places?: number
	readonly unit?: string
	readonly choices?: readonly string[]
	/** The table that a reference points to. */
	readonly to?: number
	/** What the set of rows that point here is called, seen from there. */
	readonly reverseName?: string
	readonly required?: boolean
	readonly unique?: boolean
	/** Another column of the table: the same value may stand again where that one differs. */
	readonly uniqueWithin?: number
	/** For a reference: what becomes of a row when the one that it points to is removed. */
	readonly onRemoval?: OnRemoval
	readonly about?: string
	/** What a new row gets where nothing was filled in. */
	readonly otherwise?: { readonly text: string; readonly expr: Expr }
	/** For instants: the time zone in which they are written and shown. */
	readonly timeZone?: string
	/** How its values are written and typed, where the workspace says how. */
	readonly writing?: Conventions
	/** Numbers each new row: `SR-{year}-{0000}`. */
	readonly numbering?: string
	readonly computed?: Computed
	/** A named condition: used wherever rows are chosen, and shown as a column nowhere. */
	readonly condition?: boolean
	/** Of People: builders may write `me.` with it, though they do not see it of everybody. */
	readonly openAsMe?: boolean
}

/** The row that is pointed to may not be removed; the reference becomes blank; the row goes as well. */
export const ON_REMOVAL = ['keep', 'clear', 'remove too'] as const
export type OnRemoval = (typeof ON_REMOVAL)[number]

export interface Computed {
	readonly text: string
	readonly expr: Expr
	/** Kept in the row by the door, because it depends on its own row alone and does not vary. */
	readonly stored: boolean
	/** Counts every row, whoever looks: the builder's choice. */
	readonly vouched: boolean
}

export interface BackReference {
	readonly name: string
	readonly table: number
	readonly column: number
}

/** Whether a column's values are chosen from a list that the builder wrote. */
export function offersChoices(column: { readonly type: string }): boolean {
	return column.type === 'choice' || column.type === 'several choices'
}

/** The column of that number, if the table has it. */
export function findColumn(table: Table, id: number): Column | undefined {
	return table.columns.find((column) => column.id === id)
}

/** The column of that number; that there is none is a fault of the program. */
export function getColumn(table: Table, id: number): Column {
	const column = findColumn(table, id)
	if (!column) throw new Error(`Cannot find column "${id}" in table "${table.id}"`)
	return column
}

/** The table of that number; that there is none is a fault of the program. */
export function getTable(catalogue: Catalogue, id: number): Table {
	const table = catalogue.tables.get(id)
	if (!table) throw new Error(`Cannot find table "${id}"`)
	return table
}
