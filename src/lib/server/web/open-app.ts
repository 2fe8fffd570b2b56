/** An app of which something is open to whoever asks; as missing as one that is not there, for anybody else. */
import { AppError } from '$lib/core/app-error.ts'
import type { AppSummary } from '$lib/core/requests/bench.ts'
import { getActor } from './signed-in.ts'

export async function getOpenApp(locals: App.Locals, id: string): Promise<AppSummary> {
	const apps = await locals.host.read('appsFor', { actor: getActor(locals), now: locals.now })
	const app = apps.find((each) => each.id === Number(id))
	if (!app) throw new AppError('not_found', 'This app is not there, or not for you to see.')
	return app
}
