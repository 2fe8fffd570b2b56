import { forPage } from '$lib/server/answer.ts'
import { BUILDER } from '$lib/server/people/system-roles.ts'
import { getActor } from '$lib/server/signed-in.ts'

export async function load({ locals, url, depends }) {
	depends('app:people')
	const asked = { actor: getActor(locals), now: locals.now, starts: url.searchParams.get('starts') ?? '' }
	const sheet = await forPage(() => locals.host.read('peopleSheet', asked))
	const ways = sheet.isSteward
		? {
				...(await locals.host.read('signInWays', undefined)),
				providers: await locals.host.read('providers', asked),
				open: await locals.host.read('ways', asked),
				apps: await locals.host.read('apps', undefined)
			}
		: null
	const shares = sheet.isSteward || sheet.roles.some((role) => role.mayGrant)
	const sharing = shares ? await forPage(() => locals.host.read('sharing', asked)) : null
	return { sheet, ways, sharing, builders: BUILDER }
}
