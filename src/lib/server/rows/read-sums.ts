/** Columns added up over rows, as one reader sees them. Goes through the same door as the rows. */
import { planGroups } from '$lib/core/query/groups.ts'
import { findColumn } from '$lib/core/model/table.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { withResolved, type RowsRequest } from './resolve.ts'

export interface ColumnSum {
	readonly column: number
	readonly sum: number
	/** Of how many rows, among those that this person sees, the cell is kept back. */
	readonly unseen: number
}

/** One for each column of numbers of which this person sees something. */
export function readSums(
	store: Store,
	{ actor, request, columns, now }: { actor: Actor; request: RowsRequest; columns: readonly number[]; now: number }
): ColumnSum[] {
	return withResolved(store, actor, { request, now }, (asked, plans) =>
		columns.flatMap((id) => {
			const column = asked && findColumn(asked.table, id)
			const plan = column && planGroups(asked, column, plans)
			if (plan?.as !== 'numbers') return []
			const [sum, unseen] = store.select(plan.sum)[0] ?? []
			// Without the dust of binary fractions.
			return [{ column: id, sum: Number(Number(sum).toPrecision(15)), unseen: Number(unseen ?? 0) }]
		})
	)
}
