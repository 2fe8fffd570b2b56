/**
 * Says how much a formula may have to look at, and refuses one that asks for more than anybody waits for: what is saved once is
 * worked out with every page.
 */
import { AppError } from '$lib/core/app-error.ts'
import { MANY_LOOKED_AT, MOST_LOOKED_AT, rowsLookedAt, type MostChildren } from '$lib/core/formula/check/cost.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import { getColumn, getTable, type Column } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'

/** Checks, defaults and conditions of roles are worked out row by row beside each change, which takes longer. */
export const MOST_BESIDE_A_CHANGE = 20_000

/** Rows that a formula may have to look at for one row, where that is worth a word; undefined where it is few. */
export function findCost(store: Store, expr: Expr): number | undefined {
	const rows = rowsLookedAt(expr, mostChildrenIn(store))
	return rows >= MANY_LOOKED_AT ? rows : undefined
}

/** What is wrong with a formula that asks for too much; undefined if it does not. */
export function findTooDear(store: Store, expr: Expr, most = MOST_LOOKED_AT): string | undefined {
	const rows = rowsLookedAt(expr, mostChildrenIn(store))
	if (rows <= most) return undefined
	const count = (number: number) => Math.round(number).toLocaleString('en-GB')
	return `For each row it may have to look at ${count(rows)} others, and at most ${count(most)} are looked at here. Work part of it out in a column of its own, and read that.`
}

/** Refuses a formula that would look at too many rows for each row it is worked out on. */
export function refuseTooDear(store: Store, expr: Expr, { what, most }: { what: string; most?: number }): void {
	const wrong = findTooDear(store, expr, most)
	if (wrong !== undefined) throw new AppError('invalid', `${what} asks for too much. ${wrong}`)
}

/** By the columns of one workspace as it stands; an estimate may be as old as that. */
const KNOWN = new WeakMap<Column, number>()

function mostChildrenIn(store: Store): MostChildren {
	return ({ table, column: id }) => {
		const column = getColumn(getTable(store.workspace().catalogue, table), id)
		const known = KNOWN.get(column)
		if (known !== undefined) return known
		const groups = `SELECT count(*) AS rows FROM t${table} WHERE c${id} IS NOT NULL GROUP BY c${id}`
		const most = Number(store.pluck(`SELECT coalesce(max(rows), 0) FROM (${groups})`))
		KNOWN.set(column, most)
		return most
	}
}
