import { findColumn, type OnRemoval, type Table } from '$lib/core/model/table.ts'

/** What a page needs to know of a column to show and edit its cells. */
export interface ShownColumn {
	readonly id: number
	readonly name: string
	readonly type: string
	/** The type of a computed column's values. */
	readonly shows?: string
	readonly unit?: string
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
	/** The default as text, and the name of the set of rows that point to a target; given to its keepers only. */
	readonly otherwise?: string
	readonly reverseName?: string
	/** The formula of a computed column, as text; given to its keepers only. */
	readonly formula?: string
	readonly stored?: boolean
	/** A named condition: for choosing rows, not for looking at. */
	readonly condition?: boolean
}

/** Only columns that the reader can see may be passed in. */
export function describeColumns(table: Table, ids: readonly number[], withFormulas = false): ShownColumn[] {
	return ids.flatMap((id) => {
		const column = findColumn(table, id)
		if (!column) return []
		const { computed, reverseName, otherwise, ...plain } = column
		if (!computed) return [withFormulas ? { ...plain, ...named({ reverseName, otherwise: otherwise?.text }) } : plain]
		const shown = { ...plain, shows: computed.expr.type.kind }
		return [withFormulas ? { ...shown, formula: computed.text, stored: computed.stored } : shown]
	})
}

/** The settings that there are. */
function named(settings: { reverseName: string | undefined; otherwise: string | undefined }): Partial<ShownColumn> {
	return Object.fromEntries(Object.entries(settings).filter(([, value]) => value !== undefined))
}
