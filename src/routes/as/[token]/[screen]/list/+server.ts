import { asJson } from '$lib/server/answer.ts'
import { placeOf, roomOf } from '$lib/server/app-place.ts'

/** A further page of one list of a screen. */
export function GET({ locals, params, url }) {
	const place = placeOf(locals, params)
	const { app, draft, actor } = place
	const line = url.searchParams.get('line') ?? ''
	const after = url.searchParams.get('after') ?? undefined
	return asJson(async () => {
		const { room, document } = await roomOf(locals, place)
		return room.read('list', { app, draft, document, actor, now: locals.now, screen: params.screen, line, after })
	})
}
