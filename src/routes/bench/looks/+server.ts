import { lookSchema } from '$lib/core/requests/looks.ts'
import type { WhoSees } from '$lib/core/requests/access.ts'
import { hashToken } from '$lib/server/base/token.ts'
import { handle } from '$lib/server/requests/handlers.ts'
import { LOOKING } from '$lib/server/requests/looks.ts'
import { readSessionToken } from '$lib/server/sign-in/session-cookie.ts'
import { readQuery, wholeInAddress } from '$lib/server/web/address.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** Throws the copy away that this builder tried things on: the next thing that is tried makes another. */
export function DELETE({ locals }) {
	return asJson(() => locals.host.tries.end(getBuilder(locals).person))
}

/** Who sees something of the draft, for choosing whom to look as. */
export function GET({ locals, url }) {
	return asJson<WhoSees>(() => {
		const { app } = readQuery(url, { app: wholeInAddress })
		return locals.host.read('whoSees', { app, actor: getBuilder(locals), now: locals.now })
	})
}

/** Begins to look at a draft as somebody sees it, and has a device follow it. */
export function POST({ locals, request, cookies, url }) {
	return asJson(async () => {
		const looker = getBuilder(locals).person
		const sessionHash = hashToken(readSessionToken(cookies, url) ?? '')
		return handle(LOOKING, await readBody(request, lookSchema), { host: locals.host, looker, sessionHash })
	})
}
