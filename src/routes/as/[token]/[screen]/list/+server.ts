import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { asJson } from '$lib/server/web/answer.ts'
import { placeOf, roomOf } from '$lib/server/web/app-place.ts'

/** A further page of one list of a screen. */
export function GET({ locals, params, url }) {
	const place = placeOf(locals, params)
	const { app, draft, actor } = place
	const { line, after } = readQuery(url, { line: textInAddress.default(''), after: textInAddress.optional() })
	return asJson(async () => {
		const { room, document } = await roomOf(locals, place)
		return room.read('list', { app, draft, document, actor, now: locals.now, screen: params.screen, line, after })
	})
}
