import { moneyOf } from '$lib/core/formula/check/money-of.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'

/** Only columns that the reader can see may be passed in. */
export function describeColumns(table: Table, ids: readonly number[], withFormulas = false): ShownColumn[] {
	return ids.flatMap((id) => {
		const column = findColumn(table, id)
		if (!column) return []
		const { computed, reverseName, otherwise, ...plain } = column
		if (!computed) return [withFormulas ? { ...plain, ...named({ reverseName, otherwise: otherwise?.text }) } : plain]
		// What the builder said of its unit goes before what it is made of.
		const money = plain.unit === undefined ? moneyOf(computed.expr) : undefined
		const amount = money === undefined ? {} : { unit: money, isMoney: true }
		const shown = { ...plain, ...amount, shows: computed.expr.type.kind }
		return [withFormulas ? { ...shown, formula: computed.text, stored: computed.stored } : shown]
	})
}

/** The settings that there are. */
function named(settings: { reverseName: string | undefined; otherwise: string | undefined }): Partial<ShownColumn> {
	return Object.fromEntries(Object.entries(settings).filter(([, value]) => value !== undefined))
}
