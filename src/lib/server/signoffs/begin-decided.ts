/** Begins the routines that start with a decision, in its transaction; their conditions are judged on the data as it is. */
import type { CaseState } from '$lib/core/signoff/moves.ts'
import { getTable } from '$lib/core/model/table.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { addRun } from '../routines/runs.ts'
import { decidedStartsOn, happened, holds } from '../routines/starts.ts'
import { readStoredRow } from '../store/stored-row.ts'
import type { Store } from '../store/store.ts'

export interface Decided {
	readonly app: number
	readonly table: number
	readonly n: number
	readonly state: CaseState
	readonly actor: Actor
	/** Epoch ms. */
	readonly now: number
}

export function beginDecided(store: Store, { app, table: id, n, state, actor, now }: Decided): void {
	const starts = decidedStartsOn(store, id).filter(
		(each) => each.app.id === app && each.as.split(' or ').includes(state)
	)
	if (starts.length === 0) return
	const table = getTable(store.workspace().catalogue, id)
	const after = readStoredRow(store, table, n)
	if (!after) return
	const what = happened(store, { kind: 'changed', table, n, after }, now)
	for (const { routine, app: live, condition } of starts) {
		if (!holds(condition, what.after)) continue
		const begun = { app, release: live.release, routine: routine.id, path: [routine.name], now }
		addRun(store, { ...begun, person: actor.person, on: { table: id, n } })
	}
}
