import { lookSchema, type Look } from '$lib/core/requests/screens.ts'
import type { WhoSees } from '$lib/core/requests/access.ts'
import { AppError } from '$lib/core/app-error.ts'
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

/** Begins to look at a draft as somebody sees it. The token is this builder's alone. */
export function POST({ locals, request }) {
	return asJson<Look['answers']>(async () => {
		const looker = getBuilder(locals).person
		const { app, person } = await readBody(request, lookSchema)
		if (!(await locals.host.read('person', { person }))) throw new AppError('not_found', 'This person is not here.')
		return { token: locals.host.looks.begin({ looker, person, app }) }
	})
}
