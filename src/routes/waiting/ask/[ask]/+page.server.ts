import { readWaiting } from '$lib/server/web/waiting.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params }) {
	const actor = getNamedActor(locals)
	const [waits, sheet] = await Promise.all([
		readWaiting(locals),
		forPage(() => locals.host.read('ask', { id: params.ask, actor, now: locals.now }))
	])
	return { waits, sheet }
}
