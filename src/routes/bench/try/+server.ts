import { trySchema } from '$lib/core/requests/formulas.ts'
import { handle } from '$lib/server/requests/handlers.ts'
import { TRIES } from '$lib/server/requests/try-formula.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export function POST({ locals, request }) {
	return asJson(async () => {
		const by = { actor: getBuilder(locals), now: locals.now }
		return handle(TRIES, await readBody(request, trySchema), { threads: locals.host, by })
	})
}
