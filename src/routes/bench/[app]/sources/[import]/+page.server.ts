import { forPage } from '$lib/server/answer.ts'
import { getBuilder } from '$lib/server/signed-in.ts'

export async function load({ locals, params }) {
	const actor = getBuilder(locals)
	const inspection = await forPage(() => locals.host.imports.inspect(params.import, {}, actor))
	return { importId: params.import, inspection }
}
