import { formRequestSchema } from '$lib/core/requests/forms.ts'
import { FILLING } from '$lib/server/requests/fill-form.ts'
import { handle } from '$lib/server/requests/handlers.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf, roomOf } from '$lib/server/web/app-place.ts'

/** What a form asks while somebody fills it in, as the Lookout shows it. */
export function POST({ locals, params, request }) {
	const place = placeOf(locals, params)
	const { app, draft, actor } = place
	return asJson(async () => {
		const asked = await readBody(request, formRequestSchema)
		const where = { app, draft, screen: params.screen, actor, now: locals.now }
		const { room, document } = await roomOf(locals, place)
		return handle(FILLING, asked, { room, place: { ...where, document } })
	})
}
