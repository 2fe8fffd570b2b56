import { z } from 'zod'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

const draftSchema = z.object({ version: z.number().int(), document: z.unknown() })

export function PUT({ locals, params, request }) {
	return asJson(async () => {
		const actor = getBuilder(locals)
		const { version, document } = await readBody(request, draftSchema)
		return locals.host.write('saveDraft', { app: Number(params.app), version, document, actor, now: locals.now })
	})
}
