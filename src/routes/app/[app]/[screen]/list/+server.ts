import type { WirePage } from '$lib/core/query/wire.ts'
import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { asJson } from '$lib/server/web/answer.ts'
import { placeOf } from '$lib/server/web/app-place.ts'

/** A further page of one list of a screen. */
export function GET({ locals, params, url }) {
	const { app, draft, actor } = placeOf(locals, params)
	const { line, after } = readQuery(url, { line: textInAddress.default(''), after: textInAddress.optional() })
	return asJson<WirePage>(() =>
		locals.host.read('list', { app, draft, actor, now: locals.now, screen: params.screen, line, after })
	)
}
