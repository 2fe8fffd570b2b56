import { asMessageFile, forPage } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

/** The file that came with a message in the Post tray; which messages somebody sees there, the tray decides. */
export async function GET({ locals, url }) {
	const actor = getNamedActor(locals)
	const id = url.searchParams.get('message') ?? ''
	return asMessageFile(await forPage(() => locals.host.read('trayFile', { id, actor })))
}
