import { isNever } from '$lib/core/formula/syntax/constant.ts'
import { tablesRead } from '$lib/core/formula/syntax/walk.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'
import { standingOf, type Actor } from './rights-of-actor.ts'

/**
 * The tables that a page over some tables shows anything of, as far as this person may see some of their rows: the tables
 * themselves, those whose labels stand in their references, and those that their columns total or look up.
 */
export function seenTables(
	store: Store,
	{ tables, actor, now }: { tables: readonly number[]; actor: Actor; now: number }
): number[] {
	const { rights } = standingOf(store, actor, now)
	const known = store.workspace().catalogue.tables
	const asked = tables.map((id) => known.get(id)).filter((table) => table !== undefined)
	const shown = new Set(asked.flatMap((table) => [table.id, ...tablesShown(table)]))
	return [...shown].filter((id) => {
		const table = known.get(id)
		return table !== undefined && !isNever(rights.rows(table))
	})
}

function tablesShown({ columns }: Table): number[] {
	return columns.flatMap(({ to, computed }) => [
		...(to === undefined ? [] : [to]),
		...(computed && !computed.stored ? tablesRead(computed.expr) : [])
	])
}
