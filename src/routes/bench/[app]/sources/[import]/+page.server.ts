import { readQuery, wholeInAddress } from '$lib/server/web/address.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params, url, request }) {
	const actor = getBuilder(locals)
	const inspection = await forPage(() => locals.host.imports.inspect(params.import, {}, actor, request.signal))
	const { into = 0 } = readQuery(url, { into: wholeInAddress.optional() })
	return { importId: params.import, inspection, again: into > 0 ? into : undefined }
}
