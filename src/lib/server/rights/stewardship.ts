/** What only stewards may do, and what must never happen: a workspace without anybody to look after it. */
import { AppError } from '$lib/core/app-error.ts'
import type { Store } from '../store/store.ts'
import { describePerson } from './accounts.ts'
import type { Actor } from './rights-of-actor.ts'
import { readPersonRow, rolesOf } from './roles-held.ts'
import { BUILDER, STEWARD } from './system-roles.ts'

/** Refuses whoever is no steward, in the transaction that acts. */
export function refuseUnlessSteward(store: Store, actor: Actor): void {
	if (actor.lookedAtBy === undefined && describePerson(store, actor.person)?.isSteward) return
	throw new AppError('forbidden', 'Only stewards may do this.')
}

/** Stewards and builders are named by hand: no condition and no shared role leads there. */
export const NAMED_BY_HAND: readonly number[] = [STEWARD, BUILDER]

const MAY_BE_STEWARDS = `
	SELECT a.person FROM account AS a
	WHERE a.person IN (SELECT person FROM role_held) OR a.person IN (SELECT person FROM team_member)`

/** Does something that may take rights away; it is refused if nobody who can sign in would be a steward after it. */
export function keepingASteward<T>(store: Store, work: () => T): T {
	const before = countStewards(store)
	const result = work()
	if (before > 0 && countStewards(store) === 0)
		throw new AppError('invalid', 'Somebody must look after the workspace: this is the last steward who can sign in.')
	return result
}

function countStewards(store: Store): number {
	const people = store.prepare<number>(MAY_BE_STEWARDS).pluck().all()
	return people.filter((person) => rolesOf(store, person, readPersonRow(store, person)).has(STEWARD)).length
}
