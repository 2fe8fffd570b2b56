import { appIcon } from '$lib/core/app/app-icon.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { getOpenApp } from '$lib/server/web/open-app.ts'

export async function GET({ locals, params }) {
	const app = await forPage(() => getOpenApp(locals, params.app))
	return new Response(appIcon(app), { headers: { 'content-type': 'image/svg+xml' } })
}
