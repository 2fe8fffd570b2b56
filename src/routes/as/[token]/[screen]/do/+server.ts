import { screenRequestSchema } from '$lib/core/requests/screen-doings.ts'
import { IN_APP } from '$lib/server/requests/do-in-app.ts'
import { handle } from '$lib/server/requests/handlers.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf, roomToTry } from '$lib/server/web/app-place.ts'

/** In the Lookout everything is done on a copy of the data that belongs to its builder. */
export function POST({ locals, params, request }) {
	const place = placeOf(locals, params)
	return asJson(async () => {
		const asked = await readBody(request, screenRequestSchema)
		const { room, document } = await roomToTry(locals, place)
		const { app, draft, actor } = place
		const where = { app, draft, document, screen: params.screen, actor, now: locals.now }
		return handle(IN_APP, asked, { room, place: where })
	})
}
