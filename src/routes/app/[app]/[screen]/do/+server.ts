import { screenRequestSchema } from '$lib/core/requests/screen-doings.ts'
import { IN_APP } from '$lib/server/requests/do-in-app.ts'
import { handle } from '$lib/server/requests/handlers.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf } from '$lib/server/web/app-place.ts'

export function POST({ locals, params, request }) {
	return asJson(async () => {
		const { app, draft, actor } = placeOf(locals, params)
		const asked = await readBody(request, screenRequestSchema)
		const where = { app, draft, screen: params.screen, actor, now: locals.now }
		return handle(IN_APP, asked, { room: locals.host, place: where })
	})
}
