import { coastsSchema, type TakeCoasts } from '$lib/core/requests/coasts.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** Draws the coasts where the rows of a table lie, as the ground of a map. */
export function POST({ locals, request }) {
	return asJson<TakeCoasts['answers']>(async () => {
		const actor = getBuilder(locals)
		const { table } = await readBody(request, coastsSchema)
		return locals.host.takeCoasts({ table, actor })
	})
}
