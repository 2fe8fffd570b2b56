/** Roles given to people and taken away, each with an entry in the Logbook. One passes on roles, not lines. */
import { AppError } from '$lib/core/app-error.ts'
import { mayGrant } from '$lib/core/access/granting.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { granterOf } from '../rights/granter.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { readPersonRow } from '../rights/roles-held.ts'
import { keepingASteward } from '../rights/stewardship.ts'
import { EVERYONE } from '../rights/system-roles.ts'

const GIVE = `
	INSERT INTO role_held (person, role, may_pass_on, given_by, given_at) VALUES (@person, @role, @passOn, @by, @now)
	ON CONFLICT (person, role) DO UPDATE SET may_pass_on = excluded.may_pass_on, given_by = @by, given_at = @now`
const TAKE = `DELETE FROM role_held WHERE person = ? AND role = ?`

export interface Grant extends ByActor {
	readonly person: number
	readonly role: number
}

/** Gives a role to a person; only who holds it to pass on, or a steward, never to oneself. */
export function giveRole(store: Store, { person, role, mayPassOn, actor, now }: Grant & { mayPassOn: boolean }): void {
	refuseUnlessGranter(store, { person, role, actor, now })
	store.prepare(GIVE).run({ person, role, passOn: Number(mayPassOn), by: actor.person, now })
	note(store, 'give role', { person, role, actor, now }, { mayPassOn })
}

/** Takes a role from a person; the last steward keeps theirs. */
export function takeRole(store: Store, grant: Grant): void {
	refuseUnlessGranter(store, grant)
	keepingASteward(store, () => store.prepare(TAKE).run(grant.person, grant.role))
	note(store, 'take role', grant, {})
}

function refuseUnlessGranter(store: Store, { person, role: id, actor }: Grant): void {
	const role = store.workspace().roles.find((each) => each.id === id)
	if (!role || id === EVERYONE) throw new AppError('not_found', 'This role is not there.')
	if (!readPersonRow(store, person)) throw new AppError('not_found', 'This person is not there.')
	const verdict = mayGrant(granterOf(store, actor), role, person)
	if (!verdict.ok) throw new AppError('forbidden', verdict.message)
}

function note(store: Store, kind: string, { person, role, actor, now }: Grant, more: Record<string, unknown>): void {
	const { people } = store.workspace().catalogue
	const body = { role, name: store.workspace().roles.find((each) => each.id === role)?.name, ...more }
	writeHistory(store, { at: now, person: actor.person, through: 'People', kind, table: people.id, row: person, body })
	store.touched.add('access')
}
