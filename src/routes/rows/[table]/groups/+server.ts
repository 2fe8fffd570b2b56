import type { Groups } from '$lib/core/requests/rows.ts'
import { readQuery, wholeInAddress } from '$lib/server/web/address.ts'
import { asJson } from '$lib/server/web/answer.ts'
import { readListing } from '$lib/server/rows/listing.ts'
import { getActor } from '$lib/server/web/signed-in.ts'

/** What stands in a column, counted, as much of it as this person sees. */
export function GET({ locals, params, url }) {
	return asJson<Groups | null>(async () => {
		const request = { table: Number(params.table), ...readListing(url.searchParams) }
		const { column } = readQuery(url, { column: wholeInAddress })
		return locals.host.read('groups', { actor: getActor(locals), request, column, now: locals.now })
	})
}
