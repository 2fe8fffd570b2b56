import { structureRequestSchema } from '$lib/core/requests/structure.ts'
import { STRUCTURE } from '$lib/server/requests/change-structure.ts'
import { handle } from '$lib/server/requests/handlers.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** What a builder does to the structure of tables they keep: what came of it, and the version it is in force with. */
export function POST({ locals, request }) {
	return asJson(async () => {
		const by = { actor: getBuilder(locals), now: locals.now }
		const asked = await readBody(request, structureRequestSchema)
		const made = await handle(STRUCTURE, asked, { threads: locals.host, by })
		const { version } = await locals.host.read('workspace', undefined)
		return { made, version }
	})
}
