import { draftSchema, type SaveDraft } from '$lib/core/requests/bench.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export function PATCH({ locals, params, request }) {
	return asJson<SaveDraft['answers']>(async () => {
		const actor = getBuilder(locals)
		const { version, edits } = await readBody(request, draftSchema)
		return locals.host.write('saveDraft', { app: Number(params.app), version, edits, actor, now: locals.now })
	})
}
