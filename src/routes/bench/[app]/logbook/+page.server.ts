import { readLogbookAddress } from '$lib/server/web/logbook-address.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export async function load({ locals, url }) {
	const actor = getBuilder(locals)
	const asked = readLogbookAddress(url)
	return { asked: asked.shown, page: await locals.host.read('logbook', { ...asked.asked, actor }) }
}
