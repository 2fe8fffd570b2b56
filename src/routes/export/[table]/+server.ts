import { readQuery } from '$lib/server/web/address.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { answerExport, formatInAddress } from '$lib/server/downloads/answer-export.ts'
import { tableToExport } from '$lib/server/downloads/to-export.ts'
import { readListing } from '$lib/server/rows/listing.ts'
import { getActor } from '$lib/server/web/signed-in.ts'

/** A table as a file, page by page through the same door as every read, as it is filtered and ordered. */
export async function GET({ locals, params, url }) {
	const { host, now } = locals
	const { format } = readQuery(url, { format: formatInAddress })
	const by = { host, actor: getActor(locals), now }
	const asked = await forPage(async () =>
		tableToExport(host, { ...by, table: Number(params.table), ...readListing(url.searchParams) })
	)
	return answerExport(by, asked, format)
}
