import type { Groups } from '$lib/core/requests/rows.ts'
import { valuesRequestSchema } from '$lib/core/requests/screens.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf } from '$lib/server/web/app-place.ts'

/** What one column of a list holds, for narrowing the list down. */
export function POST({ locals, params, request }) {
	const { app, draft, actor } = placeOf(locals, params)
	return asJson<Groups | null>(async () => {
		const asked = await readBody(request, valuesRequestSchema)
		return locals.host.read('listValues', { ...asked, app, draft, actor, now: locals.now, screen: params.screen })
	})
}
