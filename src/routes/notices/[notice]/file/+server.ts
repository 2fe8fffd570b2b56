import { asMessageFile, forPage } from '$lib/server/web/answer.ts'
import { getNamed } from '$lib/server/web/signed-in.ts'

/** The file that came with a notice of one's own. */
export async function GET({ locals, params }) {
	const { person } = getNamed(locals)
	return asMessageFile(await forPage(() => locals.host.read('noticeFile', { id: params.notice, person })))
}
