import { hashToken } from '$lib/server/base/token.ts'
import { readSessionToken } from '$lib/server/sign-in/session-cookie.ts'
import { numbersInAddress, readQuery, wholeInAddress } from '$lib/server/web/address.ts'
import { openChangeStream } from '$lib/server/web/change-stream.ts'
import { getActor } from '$lib/server/web/signed-in.ts'

/** Tells an open page that it should read again. */
export async function GET({ locals, url, request, cookies }) {
	const actor = getActor(locals)
	const tokenHash = hashToken(readSessionToken(cookies, url) ?? '')
	const asked = readQuery(url, { tables: numbersInAddress, since: wholeInAddress.optional() })
	const stream = await openChangeStream(locals.host, { ...asked, actor, tokenHash, signal: request.signal })
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	})
}
