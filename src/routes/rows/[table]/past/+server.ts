import { z } from 'zod'
import { isIsoDate } from '$lib/core/schedule/calendar.ts'
import type { PastPage } from '$lib/core/requests/rows.ts'
import { readListing } from '$lib/server/rows/listing.ts'
import { readQuery, wholeInAddress } from '$lib/server/web/address.ts'
import { asJson } from '$lib/server/web/answer.ts'
import { getActor } from '$lib/server/web/signed-in.ts'

/** A table as it was at the end of a past day: what this person sees now and saw then. */
export function GET({ locals, params, url }) {
	return asJson<PastPage>(() => {
		const { day, skip } = readQuery(url, { day: z.string().refine(isIsoDate), skip: wholeInAddress.default(0) })
		const request = { ...readListing(url.searchParams), table: Number(params.table), day, skip, limit: 100 }
		return locals.host.read('past', { actor: getActor(locals), request, now: locals.now })
	})
}
