import type { Found } from '$lib/core/requests/find.ts'
import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { asJson } from '$lib/server/web/answer.ts'
import { findForBuilder } from '$lib/server/requests/find-for-builder.ts'
import { getNamedActor, getUser } from '$lib/server/web/signed-in.ts'

/** What is found of all that this person may open; `bench`: the app on whose Bench a builder asks. */
export function GET({ locals, url }) {
	const { q, bench } = readQuery(url, { q: textInAddress.default(''), bench: textInAddress.optional() })
	return asJson<readonly Found[]>(async () => {
		const asked = { actor: getNamedActor(locals), now: locals.now, text: q.slice(0, 100) }
		const app = getUser(locals).isBuilder && bench !== undefined ? Number(bench) : undefined
		const [found, built] = await Promise.all([
			locals.host.read('findAnything', asked),
			app === undefined ? [] : findForBuilder(locals.host, app, asked)
		])
		return [...built, ...found]
	})
}
