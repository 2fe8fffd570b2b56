/** What somebody may give to others: any role for a steward, else what they hold and may pass on. */
import type { Granter } from '$lib/core/access/granting.ts'
import type { Store } from '../store/store.ts'
import { describePerson } from './accounts.ts'
import type { Actor } from './rights-of-actor.ts'

const PASSED_ON = `SELECT role FROM role_held WHERE person = ? AND may_pass_on = 1`

/** What this person may pass on. */
export function granterOf(store: Store, actor: Actor): Granter {
	const isSteward = actor.lookedAtBy === undefined && (describePerson(store, actor.person)?.isSteward ?? false)
	const held = actor.lookedAtBy === undefined ? store.prepare<number>(PASSED_ON).pluck().all(actor.person) : []
	return { person: actor.person, isSteward, mayPassOn: new Set(held) }
}
