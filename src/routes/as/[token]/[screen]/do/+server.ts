import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf, roomToTry } from '$lib/server/web/app-place.ts'
import { doInApp, doSchema } from '$lib/server/web/do-in-app.ts'

/** In the Lookout everything is done on a copy of the data that belongs to its builder. */
export function POST({ locals, params, request }) {
	const place = placeOf(locals, params)
	return asJson(async () => {
		const asked = await readBody(request, doSchema)
		const { room, document } = await roomToTry(locals, place)
		const { app, draft, actor } = place
		return doInApp(room, { app, draft, document, screen: params.screen, actor, now: locals.now }, asked)
	})
}
