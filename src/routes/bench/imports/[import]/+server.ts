import { importRequestSchema, type ImportState } from '$lib/core/requests/imports.ts'
import { handle } from '$lib/server/requests/handlers.ts'
import { OF_IMPORT } from '$lib/server/requests/lead-import.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** How far it is. */
export function GET({ locals, params }) {
	return asJson<ImportState>(() => locals.host.imports.state(params.import, getBuilder(locals)))
}

export function POST({ locals, params, request }) {
	return asJson(async () => {
		const context = {
			imports: locals.host.imports,
			id: params.import,
			actor: getBuilder(locals),
			signal: request.signal
		}
		return handle(OF_IMPORT, await readBody(request, importRequestSchema), context)
	})
}
