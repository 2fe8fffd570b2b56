import { formRequestSchema } from '$lib/core/requests/forms.ts'
import { FILLING } from '$lib/server/requests/fill-form.ts'
import { handle } from '$lib/server/requests/handlers.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf } from '$lib/server/web/app-place.ts'

/** What a form asks while somebody fills it in. */
export function POST({ locals, params, request }) {
	const place = placeOf(locals, params)
	const { app, draft, actor } = place
	return asJson(async () => {
		const asked = await readBody(request, formRequestSchema)
		const where = { app, draft, screen: params.screen, actor, now: locals.now }
		return handle(FILLING, asked, { room: locals.host, place: where })
	})
}
