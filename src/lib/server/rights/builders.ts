import { AppError } from '$lib/core/app-error.ts'
import type { Store } from '../store/store.ts'
import { describePerson } from './accounts.ts'
import type { Actor } from './rights-of-actor.ts'

/** Nobody but a builder makes or changes an app or a table; asked in the transaction that acts. */
export function refuseUnlessBuilder(store: Store, actor: Actor): void {
	if (actor.lookedAtBy === undefined && describePerson(store, actor.person)?.isBuilder) return
	throw new AppError('forbidden', 'Only builders may do this.')
}
