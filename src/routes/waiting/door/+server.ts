import { doorSchema, type AtTheDoor } from '$lib/core/requests/joining.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

/** Lets somebody in from the doorstep, or turns them away. Who may is decided where it is done. */
export function POST({ locals, request }) {
	return asJson<AtTheDoor['answers']>(async () => {
		const asked = await readBody(request, doorSchema)
		await locals.host.write('decideAccessRequest', { ...asked, actor: getNamedActor(locals), now: locals.now })
	})
}
