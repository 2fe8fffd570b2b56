import { screenReadSchema } from '$lib/core/requests/screen-reads.ts'
import { handle } from '$lib/server/requests/handlers.ts'
import { READING } from '$lib/server/requests/read-screen.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf, roomOf } from '$lib/server/web/app-place.ts'

/** What an open screen asks: its lines anew, and what a button gives, as the Lookout shows it. */
export function POST({ locals, params, request }) {
	const place = placeOf(locals, params)
	const { app, draft, actor } = place
	return asJson(async () => {
		const asked = await readBody(request, screenReadSchema)
		const where = { app, draft, screen: params.screen, actor, now: locals.now }
		const { room, document } = await roomOf(locals, place)
		return handle(READING, asked, { room, place: { ...where, document } })
	})
}
