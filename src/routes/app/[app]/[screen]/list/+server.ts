import { asJson } from '$lib/server/answer.ts'
import { placeOf } from '$lib/server/app-place.ts'

/** A further page of one list of a screen. */
export function GET({ locals, params, url }) {
	const { app, draft, actor } = placeOf(locals, params)
	const line = url.searchParams.get('line') ?? ''
	const after = url.searchParams.get('after') ?? undefined
	return asJson(() =>
		locals.host.read('list', { app, draft, actor, now: locals.now, screen: params.screen, line, after })
	)
}
