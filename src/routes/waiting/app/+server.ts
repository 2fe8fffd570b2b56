import { askForAppSchema, type AskForApp } from '$lib/core/requests/joining.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

/** Asks to be let into an app, for who came by a link that is not open to them. Below an app's own address screens have their ids. */
export function POST({ locals, request }) {
	return asJson<AskForApp['answers']>(async () => {
		const asked = await readBody(request, askForAppSchema)
		await locals.host.write('askForApp', { ...asked, actor: getNamedActor(locals), now: locals.now })
	})
}
