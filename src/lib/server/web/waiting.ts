import { getNamedActor } from './signed-in.ts'

/** All that waits on whoever is signed in, as the list beside each of it shows it. */
export async function readWaiting(locals: App.Locals) {
	const actor = getNamedActor(locals)
	const { host, now } = locals
	const [lists, asks, accessRequests, givenUp] = await Promise.all([
		host.read('cases', { actor, now }),
		host.read('asks', { actor, now }),
		host.read('accessRequests', { actor }),
		host.read('runsGivenUp', { actor, now })
	])
	return { lists, asks, accessRequests, givenUp }
}
