import { forPage } from '$lib/server/answer.ts'
import { getBuilder } from '$lib/server/signed-in.ts'

export async function load({ locals, params, url }) {
	const actor = getBuilder(locals)
	const inspection = await forPage(() => locals.host.imports.inspect(params.import, {}, actor))
	const into = Number(url.searchParams.get('into') ?? 0)
	return { importId: params.import, inspection, again: into > 0 ? into : undefined }
}
