/** A formula over no row, as one person sees the data: of their own row, too, only cells that they see, and what they are called. */
import { check } from '$lib/core/formula/check/check.ts'
import type { Here } from '$lib/core/formula/check/check-call.ts'
import { moneyOf } from '$lib/core/formula/check/money-of.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { compileError, compileValue } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { someNode } from '$lib/core/formula/syntax/walk.ts'
import type { Plain, Type } from '$lib/core/model/formula.ts'
import { raw, sql } from '$lib/core/sql/sql.ts'
import type { Standing } from '../rights/rights-of-actor.ts'
import { momentShown } from '../rights/shown-me.ts'
import type { Store } from '../store/store.ts'

export interface Alone {
	/** Blank where it is an error or cannot be read any more; a row is its number. */
	readonly value: Plain
	readonly type: Type
	/** The unit, where it is an amount of money. */
	readonly money?: string | undefined
}

const NOTHING: Alone = { value: null, type: { kind: 'blank' } }

export function workOutAlone(
	store: Store,
	formula: string,
	{ standing, here }: { standing: Standing; here?: Here }
): Alone {
	const { catalogue } = store.workspace()
	const { expr } = check(formula, { catalogue, rows: [], me: true, here })
	if (!expr) return NOTHING
	const moment = momentShown(store, standing)
	const folded = fold(expr, moment)
	// What folding leaves of one's own row is worked out on the data as it is.
	if (someNode(folded, ({ kind }) => kind === 'me')) return NOTHING
	const ctx = () => newContext('r', moment, standing.rights)
	const [row] = store.select(sql`SELECT ${compileValue(folded, ctx())}, ${compileError(folded, ctx()) ?? raw('NULL')}`)
	if (!row || row[1] !== null) return { ...NOTHING, type: expr.type }
	// A compiled formula gives values of its type.
	const value = expr.type.kind === 'yesno' && row[0] !== null ? row[0] === 1 : (row[0] as Plain)
	return { value, type: expr.type, money: moneyOf(expr) }
}
