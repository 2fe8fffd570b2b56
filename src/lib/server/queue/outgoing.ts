/** Whether anything leaves the workspace at present: a steward may hold all of it back, while something is found out. */
import type { Outgoing } from '$lib/core/requests/notices.ts'
import { writeHistory } from '../history/history.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { refuseUnlessSteward } from '../rights/stewardship.ts'
import type { Store } from '../store/store.ts'

const HELD = `SELECT value FROM meta WHERE key = 'outgoing held since'`
const HOLD = `INSERT INTO meta (key, value) VALUES ('outgoing held since', @now) ON CONFLICT (key) DO NOTHING`
const LET_GO = `DELETE FROM meta WHERE key = 'outgoing held since'`
const WAITING = `SELECT count(*) FROM job WHERE task = 'post' AND done_at IS NULL AND attempts < max_attempts`

export function isHeldBack(store: Store): boolean {
	return store.pluck<string | undefined>(HELD) !== undefined
}

export function readOutgoing(store: Store): Outgoing {
	const since = store.pluck<string | undefined>(HELD)
	return { heldSince: since === undefined ? null : Number(since), waiting: store.pluck<number>(WAITING) ?? 0 }
}

/** For stewards alone. What waits meanwhile leaves once it is let go. */
export function holdOutgoing(store: Store, { hold, actor, now }: ByActor & { hold: boolean }): void {
	refuseUnlessSteward(store, actor)
	if (hold) store.prepare(HOLD).run({ now: String(now) })
	else store.prepare(LET_GO).run()
	store.touched.add('jobs')
	const kind = hold ? 'hold back what leaves' : 'let out what was held back'
	writeHistory(store, { at: now, person: actor.person, through: 'Workspace', kind, table: null, row: null, body: {} })
}
