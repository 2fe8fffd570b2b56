import { asJson, readBody } from '$lib/server/web/answer.ts'
import { placeOf } from '$lib/server/web/app-place.ts'
import { doInApp, doSchema } from '$lib/server/web/do-in-app.ts'

export function POST({ locals, params, request }) {
	return asJson(async () => {
		const { app, draft, actor } = placeOf(locals, params)
		const asked = await readBody(request, doSchema)
		return doInApp(locals.host, { app, draft, screen: params.screen, actor, now: locals.now }, asked)
	})
}
