/**
 * Counts what rights come to, for keepers. People whose lines come to the same conditions, once their own values stand in
 * them, are counted once: of fifty people there are seldom more than a handful of different ones.
 */
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import { planCount } from '$lib/core/query/plan.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'

/** Rows are counted no further; one more than this says that there are more. */
export const COUNTED = 100_000
/** People are looked at no further. */
const LISTED = 200

export interface Counts {
	/** Rows of a table under some rights that fit a condition as well, up to `COUNTED` and one. */
	count(rights: Rights, table: Table, where?: Expr): number
}

export function openCounts(store: Store): Counts {
	const known = new Map<string, number>()
	return {
		count(rights, table, where) {
			if (isNever(rights.rows(table))) return 0
			const request = { table, columns: [], where: where ? [where] : [] }
			const query = planCount(request, { catalogue: store.workspace().catalogue, rights }, COUNTED + 1)
			const key = JSON.stringify([query.text, query.params.map((each) => [typeof each, String(each)])])
			const found = known.get(key)
			if (found !== undefined) return found
			const count = Number(store.select(query)[0]?.[0] ?? 0)
			known.set(key, count)
			return count
		}
	}
}

/** People by name, as many as pages list. */
export function peopleListed(store: Store): number[] {
	const { people } = store.workspace().catalogue
	return store.prepare<number>(`SELECT n FROM t${people.id} ORDER BY c${people.label}k LIMIT ${LISTED}`).pluck().all()
}

/** How many there are beyond those. */
export function peopleUnlisted(store: Store): number {
	const { people } = store.workspace().catalogue
	return Math.max(0, Number(store.prepare(`SELECT count(*) FROM t${people.id}`).pluck().get()) - LISTED)
}
