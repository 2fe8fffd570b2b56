import { appManifest } from '$lib/core/app/app-icon.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { getOpenApp } from '$lib/server/web/open-app.ts'

export async function GET({ locals, params }) {
	const app = await forPage(() => getOpenApp(locals, params.app))
	const body = JSON.stringify(appManifest(app, `/app/${app.id}`))
	return new Response(body, { headers: { 'content-type': 'application/manifest+json' } })
}
