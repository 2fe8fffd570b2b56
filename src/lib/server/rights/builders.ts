import { AppError } from '$lib/core/app-error.ts'
import type { Store } from '../store/store.ts'
import { describePerson } from './accounts.ts'
import type { Actor } from './rights-of-actor.ts'

/** Whether somebody builds, as themselves: who is only looked as in the Lookout does not. */
export function isBuilder(store: Store, actor: Actor): boolean {
	return actor.lookedAtBy === undefined && (describePerson(store, actor.person)?.isBuilder ?? false)
}

/** Nobody but a builder makes or changes an app or a table; asked in the transaction that acts. */
export function refuseUnlessBuilder(store: Store, actor: Actor): void {
	if (isBuilder(store, actor)) return
	throw new AppError('forbidden', 'Only builders may do this.')
}
