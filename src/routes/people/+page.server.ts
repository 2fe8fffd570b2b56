import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import type { Actor } from '$lib/server/rights/rights-of-actor.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

export async function load({ locals, url, depends }) {
	depends('app:people')
	const { starts } = readQuery(url, { starts: textInAddress.default('') })
	const asked = { actor: getNamedActor(locals), now: locals.now, starts }
	const sheet = await forPage(() => locals.host.read('peopleSheet', asked))
	const ways = sheet.isSteward ? await readWays(locals, asked) : null
	const shares = sheet.isSteward || sheet.roles.some((role) => role.mayGrant)
	const sharing = shares ? await forPage(() => locals.host.read('sharing', asked)) : null
	return { sheet, ways, sharing, builders: BUILDER }
}

/** For stewards: by what people sign in, and the ways into apps. */
async function readWays({ host }: App.Locals, asked: { actor: Actor; now: number }) {
	const open = await host.read('ways', asked)
	return {
		...(await host.read('signInWays', undefined)),
		providers: await host.read('providers', asked),
		open,
		proofs: await host.read('proofs', { ...asked, apps: [...new Set(open.map(({ app }) => app))] }),
		apps: await host.read('apps', undefined)
	}
}
