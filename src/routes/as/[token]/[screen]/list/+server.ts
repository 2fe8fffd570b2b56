import type { WirePage } from '$lib/core/query/wire.ts'
import { listRequestSchema } from '$lib/core/requests/screens.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf, roomOf } from '$lib/server/web/app-place.ts'

/** A page of one list of a screen, as the Lookout shows it. */
export function POST({ locals, params, request }) {
	const place = placeOf(locals, params)
	const { app, draft, actor } = place
	return asJson<WirePage>(async () => {
		const asked = await readBody(request, listRequestSchema)
		const { room, document } = await roomOf(locals, place)
		return room.read('list', { ...asked, app, draft, document, actor, now: locals.now, screen: params.screen })
	})
}
