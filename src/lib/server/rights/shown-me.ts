/**
 * Of somebody's own row, what another person may read in formulas: `me.Harbour` of a colleague who is looked as is a cell of
 * People like any other. What the looker does not see there is blank to them, unless a steward opened the column to builders.
 */
import { isAlways, isNever } from '$lib/core/formula/syntax/constant.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import type { RowValues } from '$lib/core/formula/evaluate/evaluate.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import type { Moment } from '$lib/core/formula/evaluate/fold.ts'
import { allOf, param, sql } from '$lib/core/sql/sql.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'

export function asShownTo(store: Store, looker: Rights, me: RowValues): RowValues {
	const { people } = store.workspace().catalogue
	const known = new Map<number, boolean>()
	const isShown = (column: Column): boolean => {
		const shown =
			known.get(column.id) ?? (column.openAsMe === true || isSeenOn(store, looker, { people, column, n: me.n }))
		known.set(column.id, shown)
		return shown
	}
	return { n: me.n, value: (column) => (isShown(column) ? me.value(column) : null) }
}

/** The moment in which formulas are worked out whose values somebody is shown: of their own row what they see there, and their name. */
export function momentShown(store: Store, { rights, moment }: { rights: Rights; moment: Moment }): Moment {
	const { me } = moment
	if (!me) return moment
	const { people } = store.workspace().catalogue
	const shown = asShownTo(store, rights, me)
	return { ...moment, me: { n: me.n, value: (column) => (column.id === people.label ? me : shown).value(column) } }
}

function isSeenOn(
	store: Store,
	rights: Rights,
	{ people, column, n }: { people: Table; column: Column; n: number }
): boolean {
	const needed = [rights.rows(people), rights.cell(people, column)]
	if (needed.some(isNever)) return false
	if (needed.every(isAlways)) return true
	const seen = needed.map((each) => compileCondition(each, newContext('r', rights.moment)))
	const [found] = store.select(sql`SELECT 1 FROM t${people.id} AS r WHERE ${allOf([sql`r.n = ${param(n)}`, ...seen])}`)
	return found !== undefined
}
