import type { Anchors } from '$lib/core/requests/rows.ts'
import { asJson } from '$lib/server/web/answer.ts'
import { readListing } from '$lib/server/rows/listing.ts'
import { getActor } from '$lib/server/web/signed-in.ts'

/** How many rows a listing finds, and where pages of it may start. */
export function GET({ locals, params, url }) {
	return asJson<Anchors>(async () => {
		const request = { table: Number(params.table), ...readListing(url.searchParams) }
		return locals.host.read('anchors', { actor: getActor(locals), request, now: locals.now })
	})
}
