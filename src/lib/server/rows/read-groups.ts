/** What stands in a column of a table, counted as one reader sees it. Goes through the same door as its rows. */
import type { Group, Groups } from '$lib/core/requests/rows.ts'
import { stepWidth } from '$lib/core/query/bands.ts'
import { HIDDEN, planGroups, type GroupsPlan } from '$lib/core/query/groups.ts'
import type { WireCell } from '$lib/core/query/wire.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import { findColumn, getColumn, getTable, type Column } from '$lib/core/model/table.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { labelText } from './to-wire.ts'
import { withResolved, type RowsRequest } from './resolve.ts'
import { toValue } from '../store/stored-row.ts'

const MOST_SHOWN = 40
/** So many different numbers or dates are still listed one by one. */
const ONE_BY_ONE = 20
const STEPS = 14
const MOST_MONTHS = 40

/** Null where this person sees nothing of the column. */
export function readGroups(
	store: Store,
	{ actor, request, column: id, now }: { actor: Actor; request: RowsRequest; column: number; now: number }
): Groups | null {
	return withResolved(store, actor, { request, now }, (asked, plans) => {
		const column = asked && findColumn(asked.table, id)
		const plan = column && planGroups(asked, column, plans)
		if (!column || !plan) return null
		const [rows, unseen, blank, values, least, most, mean] = store.select(plan.summary)[0] ?? []
		const of = { store, column, plan }
		return {
			rows: Number(rows),
			unseen: Number(unseen ?? 0),
			blank: Number(blank ?? 0),
			values: Number(values),
			// A least value is stored as its column is.
			least: (least ?? null) as WireCell,
			// As above.
			most: (most ?? null) as WireCell,
			mean: typeof mean === 'number' ? mean : null,
			...groupsOf(of, { values: Number(values), least, most })
		}
	})
}

interface OfColumn {
	readonly store: Store
	readonly column: Column
	readonly plan: GroupsPlan
}

function groupsOf(
	of: OfColumn,
	spread: { values: number; least: unknown; most: unknown }
): Pick<Groups, 'by' | 'groups'> {
	const { store, plan } = of
	if (plan.as === 'numbers' && spread.values > ONE_BY_ONE) {
		const width = stepWidth(Number(spread.least), Number(spread.most), STEPS)
		const steps = store.select(plan.steps(width)).map(([step, rows]) => ({
			value: round(Number(step) * width),
			before: round((Number(step) + 1) * width),
			rows: Number(rows)
		}))
		return { by: 'step', groups: steps }
	}
	if (plan.as === 'dates' && spread.values > ONE_BY_ONE) {
		const months = monthsBetween(String(spread.least), String(spread.most))
		const by = months <= MOST_MONTHS ? 'month' : 'year'
		const periods = store.select(plan.periods(by === 'month' ? 7 : 4))
		return { by, groups: periods.map(([period, rows]) => ({ value: String(period), rows: Number(rows) })) }
	}
	const found = store.select(plan.values(MOST_SHOWN)).map(([key, rows, shown]) => ({
		// The columns of a group's statement hold what rows hold.
		value: toCell(of, key as StoredValue, shown as StoredValue),
		rows: Number(rows)
	}))
	const inOrder = plan.as === 'numbers' || plan.as === 'dates'
	return { by: 'value', groups: inOrder ? found.sort(byValue) : found }
}

function byValue(a: Group, b: Group): number {
	if (typeof a.value === 'number' && typeof b.value === 'number') return a.value - b.value
	return String(a.value) < String(b.value) ? -1 : 1
}

function toCell({ store, column, plan }: OfColumn, key: StoredValue, shown: StoredValue): WireCell {
	if (plan.as === 'references') return toReference(store, column, Number(key), shown)
	if (column.type === 'choice' || column.type === 'yes/no') {
		const value = toValue(column, shown)
		return typeof value === 'object' ? null : value
	}
	return column.computed?.expr.type.kind === 'yesno' ? key === 1 : shown
}

function toReference(store: Store, column: Column, n: number, shown: StoredValue): WireCell {
	if (n === HIDDEN) return { hidden: true }
	const target = getTable(store.workspace().catalogue, column.to ?? 0)
	return { id: store.ids.toId(target.id, n), label: labelText(getColumn(target, target.label), shown) }
}

function monthsBetween(least: string, most: string): number {
	const month = (date: string) => Number(date.slice(0, 4)) * 12 + Number(date.slice(5, 7))
	return month(most) - month(least) + 1
}

/** Without the dust of binary fractions: 0.30000000000000004 is 0.3. */
function round(value: number): number {
	return Number(value.toPrecision(12))
}
