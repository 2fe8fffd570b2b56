import { numbersInAddress, readQuery, textInAddress, wholeInAddress } from '$lib/server/web/address.ts'
import { placeOf } from '$lib/server/web/app-place.ts'
import { openChangeStream } from '$lib/server/web/change-stream.ts'
import { getActor } from '$lib/server/web/signed-in.ts'

/** Tells an open page that it should read again; in a Lookout that a device follows, after each change of the draft too. */
export async function GET({ locals, url, request }) {
	const { as: token, ...asked } = readQuery(url, {
		...{ tables: numbersInAddress, since: wholeInAddress.optional(), as: textInAddress.optional() }
	})
	const place = token === undefined ? undefined : placeOf(locals, { token })
	const listening = { ...asked, actor: place?.actor ?? getActor(locals), draftOf: place?.app }
	const { sessionHash: tokenHash } = locals
	const stream = await openChangeStream(locals.host, { ...listening, tokenHash, signal: request.signal })
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	})
}
