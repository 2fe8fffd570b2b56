/** What a keeper writes as checks and defaults is judged on the data as it is, so it may read only what they hold. */
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { check, checkCondition } from '$lib/core/formula/check/check.ts'
import { getTable } from '$lib/core/model/table.ts'
import type { TableEntry } from '$lib/core/workspace/document.ts'
import { refuseUnheld } from '../rights/held-formulas.ts'
import type { Store } from '../store/store.ts'
import { MOST_BESIDE_A_CHANGE, refuseTooDear } from '../derived/formula-cost.ts'

export interface Rule extends ByActor {
	readonly table: number
	readonly kind: 'check' | 'default'
	readonly text: string
}

/** Refuses a rule that cannot be read, or that reads more than its writer may. */
export function refuseUnheldRule(store: Store, { table, kind, text, actor, now }: Rule): void {
	const { catalogue } = store.workspace()
	const scope = { catalogue, rows: [getTable(catalogue, table)], me: true }
	const { expr, issues } = kind === 'check' ? checkCondition(text, scope) : check(text, scope)
	if (!expr) throw new AppError('invalid', issues[0]?.message ?? 'This formula cannot be read.', { issues })
	const what = kind === 'check' ? 'A check' : 'A default'
	refuseUnheld(store, expr, { actor, now, what })
	refuseTooDear(store, expr, { what, most: MOST_BESIDE_A_CHANGE })
}

/** The same for all rules of a table as it is to be. Those that cannot be read yet are refused when it is saved. */
export function refuseUnheldRules(store: Store, table: number, entry: TableEntry, by: ByActor): void {
	const current = store.workspace().document.tables.find((each) => each.id === table)
	const held = new Set([...rulesOf(current)].map(([, text]) => text))
	for (const [kind, text] of rulesOf(entry)) if (!held.has(text)) refuseUnheldRule(store, { table, kind, text, ...by })
}

function rulesOf(entry: TableEntry | undefined): (readonly ['check' | 'default', string])[] {
	const checks = (entry?.checks ?? []).map(({ formula }) => ['check', formula] as const)
	const defaults = (entry?.columns ?? []).flatMap(({ otherwise }) =>
		otherwise ? [['default', otherwise] as const] : []
	)
	return [...checks, ...defaults]
}
