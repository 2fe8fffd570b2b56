import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'

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
