import { cellKey } from '$lib/core/query/wire.ts'
import { asJson } from '$lib/server/answer.ts'
import { placeOf } from '$lib/server/app-place.ts'
import { getActor } from '$lib/server/signed-in.ts'

/** Rows of a table that this person sees and may refer to, by the start of their label. */
export function GET({ locals, params, url }) {
	const token = url.searchParams.get('as')
	const actor = token === null ? getActor(locals) : placeOf(locals, { token }).actor
	return asJson(async () => {
		const table = Number(params.table)
		const request = { table, limit: 30, labelStarts: url.searchParams.get('starts') ?? '' }
		const { label, page } = await locals.host.read('labels', { actor, request, now: locals.now })
		return page.rows.map((row) => ({ id: row.id, label: String(row.cells[cellKey(label)] ?? '') }))
	})
}
