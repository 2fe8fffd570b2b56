import { z } from 'zod'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

const decisionSchema = z.object({ id: z.number().int(), letIn: z.boolean() })

/** Lets somebody in from the doorstep, or turns them away. Who may is decided where it is done. */
export function POST({ locals, request }) {
	return asJson(async () => {
		const asked = await readBody(request, decisionSchema)
		await locals.host.write('decideKnock', { ...asked, actor: getNamedActor(locals), now: locals.now })
	})
}
