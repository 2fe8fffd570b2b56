import type { WirePage } from '$lib/core/query/wire.ts'
import { listRequestSchema } from '$lib/core/requests/screens.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf } from '$lib/server/web/app-place.ts'

/** A page of one list of a screen. Asked by POST, so that no log holds what is looked for. */
export function POST({ locals, params, request }) {
	const { app, draft, actor } = placeOf(locals, params)
	return asJson<WirePage>(async () => {
		const asked = await readBody(request, listRequestSchema)
		return locals.host.read('list', { ...asked, app, draft, actor, now: locals.now, screen: params.screen })
	})
}
