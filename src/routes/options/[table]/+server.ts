import type { Option } from '$lib/core/requests/rows.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { asJson } from '$lib/server/web/answer.ts'
import { placeOf, roomOf } from '$lib/server/web/app-place.ts'
import { getActor } from '$lib/server/web/signed-in.ts'

/** Rows of a table that this person sees and may refer to, by the start of their label. */
export function GET({ locals, params, url }) {
	const { as: token, starts } = readQuery(url, { as: textInAddress.optional(), starts: textInAddress.default('') })
	const place = token === undefined ? { app: 0, actor: getActor(locals) } : placeOf(locals, { token })
	return asJson<readonly Option[]>(async () => {
		const table = Number(params.table)
		const request = { table, limit: 30, labelStarts: starts }
		const { room } = await roomOf(locals, place)
		const { label, page } = await room.read('labels', { actor: place.actor, request, now: locals.now })
		return page.rows.map((row) => ({ id: row.id, label: String(row.cells[cellKey(label)] ?? '') }))
	})
}
