import { rowRequestSchema, type BlockChanged } from '$lib/core/requests/rows.ts'
import type { WirePage } from '$lib/core/query/wire.ts'
import type { Changed } from '$lib/core/query/change.ts'
import { readQuery, textInAddress, wholeInAddress } from '$lib/server/web/address.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { readListing } from '$lib/server/rows/listing.ts'
import { getActor } from '$lib/server/web/signed-in.ts'

/** A page of a table's rows, as much as this person may see. */
export function GET({ locals, params, url }) {
	return asJson<WirePage>(async () => {
		const asked = readQuery(url, {
			limit: wholeInAddress.default(100),
			skip: wholeInAddress.default(0),
			after: textInAddress.optional(),
			row: textInAddress.optional()
		})
		const request = { ...readListing(url.searchParams), ...asked, table: Number(params.table), offers: true }
		return locals.host.read('rows', { actor: getActor(locals), request, now: locals.now })
	})
}

/** A change from the grid: a cell, a new row, a removal, a whole block, or taking one of these back. */
export function POST({ locals, params, request }) {
	return asJson<BlockChanged | Changed | undefined>(async () => {
		const asked = await readBody(request, rowRequestSchema)
		const table = Number(params.table)
		const context = { actor: getActor(locals), now: locals.now, through: 'grid' as const }
		if (asked.kind === 'block') {
			const changes = asked.changes.map((change) => ({ ...change, table }))
			return locals.host.write('changeBlock', { changes, partly: asked.partly, context })
		}
		const [changed] = await locals.host.write('changeRows', { changes: [{ ...asked, table }], context })
		return changed
	})
}
