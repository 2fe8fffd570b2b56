import { error } from '@sveltejs/kit'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { SignedIn } from '../rights/accounts.ts'

/** Who is signed in; the hook has sent everybody else to the sign-in page already. */
export function getUser(locals: App.Locals): SignedIn {
	if (!locals.user) error(401, 'You are signed out. Sign in again.')
	return locals.user
}

/** Who is signed in by name, if anybody is. */
export function findNamed({ user }: App.Locals): SignedIn | undefined {
	return user?.visits === undefined ? user : undefined
}

/**
 * Who is signed in by name: an account of one's own, mail, decisions and people are nothing for an app's visitors, who
 * share one row among them.
 */
export function getNamed(locals: App.Locals): SignedIn {
	const user = getUser(locals)
	if (user.visits !== undefined) error(403, 'This is for people with an account of their own. Sign in first.')
	return user
}

/** Somebody with an account; throws 403 for visitors, and sends others to the sign-in. */
export function getNamedActor(locals: App.Locals): Actor {
	return { person: getNamed(locals).person }
}

/** Whoever is signed in, visitors too; others are sent to the sign-in. */
export function getActor(locals: App.Locals): Actor {
	return { person: getUser(locals).person }
}

/** Throws 403 for everybody else. */
export function getSteward(locals: App.Locals): Actor {
	const user = getUser(locals)
	if (!user.isSteward) error(403, 'This page is for stewards, who look after the workspace.')
	return { person: user.person }
}

/** For the pages of the Bench; what they do is asked again in the transaction that acts. */
export function getBuilder(locals: App.Locals): Actor {
	const user = getUser(locals)
	if (!user.isBuilder) error(403, 'The Bench is for builders. Ask a steward if you should be one.')
	return { person: user.person }
}
