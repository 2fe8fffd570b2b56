import { askForAppSchema, type AskForApp } from '$lib/core/requests/joining.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

/** Asks to be let in, for who came by a link that is not open to them. */
export function POST({ locals, params, request }) {
	return asJson<AskForApp['answers']>(async () => {
		const asked = await readBody(request, askForAppSchema)
		const by = { actor: getNamedActor(locals), now: locals.now }
		await locals.host.write('askForApp', { ...asked, app: Number(params.app), ...by })
	})
}
