/** The step that waits until something holds of the row at hand: done again whenever its run is looked at. */
import type { StepOf } from '$lib/core/routine/routine.ts'
import type { Store } from '../store/store.ts'
import { holds } from './conditions.ts'
import { rowOf, type StepNow, type StepResult } from './step-now.ts'
import { waitUntil } from './wait-until.ts'

/** A change of the row wakes it; what follows from other rows, or from the time, is seen within this. */
const LOOKED_AT_MS = 3_600_000

const FIND = `SELECT ends_at AS endsAt FROM run_wait WHERE cause = ?`
const ADD = `INSERT INTO run_wait (cause, run, row_table, row_n, ends_at) VALUES (@cause, @run, @table, @n, @endsAt)`
const DROP = `DELETE FROM run_wait WHERE cause = ?`

export function waitForRow({ where, ends }: StepOf<'until'>, now: StepNow): StepResult {
	const { store, cause } = now
	const known = store.prepare<{ endsAt: number | null }>(FIND).get(cause)
	if (holds(where, now)) return over(store, { cause, held: true, cameTo: 'holds' })
	const endsAt = known ? known.endsAt : ends ? waitUntil(store, ends, now.now) : null
	if (endsAt !== null && now.now >= endsAt) return over(store, { cause, held: false, cameTo: 'did not come in time' })
	if (!known) {
		const { table, n } = rowOf(now)
		store.prepare(ADD).run({ cause, run: now.run, table: table.id, n, endsAt })
	}
	const until = Math.min(endsAt ?? Infinity, now.now + LOOKED_AT_MS)
	return { outcome: { kind: 'stays' }, cameTo: known ? '' : 'waits', until }
}

function over(store: Store, { cause, held, cameTo }: { cause: string; held: boolean; cameTo: string }): StepResult {
	store.prepare(DROP).run(cause)
	return { outcome: { kind: 'held', held }, cameTo }
}
