import type { Groups } from '$lib/core/requests/rows.ts'
import { valuesRequestSchema } from '$lib/core/requests/screens.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf, roomOf } from '$lib/server/web/app-place.ts'

/** What one column of a list holds, as the Lookout shows it. */
export function POST({ locals, params, request }) {
	const place = placeOf(locals, params)
	const { app, draft, actor } = place
	return asJson<Groups | null>(async () => {
		const asked = await readBody(request, valuesRequestSchema)
		const { room, document } = await roomOf(locals, place)
		return room.read('listValues', { ...asked, app, draft, document, actor, now: locals.now, screen: params.screen })
	})
}
