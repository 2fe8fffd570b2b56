import { asJson, readBody } from '$lib/server/answer.ts'
import { placeOf } from '$lib/server/app-place.ts'
import { doInApp, doSchema } from '$lib/server/apps/do-in-app.ts'

export function POST({ locals, params, request }) {
	return asJson(async () => {
		const { app, draft, actor } = placeOf(locals, params)
		const asked = await readBody(request, doSchema)
		return doInApp(locals.host, { app, draft, screen: params.screen, actor, now: locals.now }, asked)
	})
}
