import { readLogbookAddress } from '$lib/server/web/logbook-address.ts'
import { getSteward } from '$lib/server/web/signed-in.ts'

export async function load({ locals, url }) {
	const actor = getSteward(locals)
	const asked = readLogbookAddress(url)
	return { asked: asked.shown, page: await locals.host.read('logbook', { ...asked.asked, actor }) }
}
