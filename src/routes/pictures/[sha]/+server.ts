import { error } from '@sveltejs/kit'
import { readQuery, textInAddress, wholeInAddress } from '$lib/server/web/address.ts'
import { asAppFile, forPage } from '$lib/server/web/answer.ts'
import { placeOf, roomOf } from '$lib/server/web/app-place.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'
import { rangeOf } from '$lib/server/web/byte-range.ts'

/** A picture or a film that an app shows, for whoever the app is open to; on the Bench any, for builders. */
export async function GET({ locals, params, url, request }) {
	const { app, as: token } = readQuery(url, { app: wholeInAddress.optional(), as: textInAddress.optional() })
	const isOfApp = app !== undefined || token !== undefined
	const place = isOfApp ? placeOf(locals, token === undefined ? { app: String(app) } : { token }) : undefined
	const { document } = place ? await roomOf(locals, place) : {}
	const file = await forPage(() =>
		locals.host.read('appFile', {
			...{ sha: params.sha, place: place && { ...place, document } },
			...{ actor: place?.actor ?? getBuilder(locals), now: locals.now }
		})
	)
	// It is known by what is in it: whoever may still have it need not be sent it again.
	const sign = `"${file.sha.slice(0, 32)}"`
	if (request.headers.get('if-none-match') === sign) return new Response(null, { status: 304 })
	const range = rangeOf(request.headers.get('range'), file.size)
	const body = await locals.host.files.read(file.sha, range)
	if (!body) error(404, 'The bytes of this picture are missing. Choose it again on the Bench.')
	return asAppFile(body, { ...file, sign, range })
}
