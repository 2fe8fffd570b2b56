/** What the parts of an app that is made from tables are made from. */
import type { ScreenInput } from '../document.ts'
import type { MadeTable, TableClass } from './classify.ts'

export interface ScreensOfTable {
	readonly list: string
	readonly sheet: string
	readonly form: string
}

export interface Made {
	readonly table: MadeTable
	readonly kind: TableClass
	/** Without named conditions, which are shown nowhere. */
	readonly all: readonly MadeTable[]
	readonly classes: ReadonlyMap<number, TableClass>
	readonly ids: ScreensOfTable
	/** Of every table that gets some. */
	readonly screens: ReadonlyMap<number, ScreensOfTable>
	readonly newId: () => string
}

export type MadeLine = ScreenInput['lines'][number]
