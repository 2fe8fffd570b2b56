import type { HistoryEntry } from '$lib/core/requests/rows.ts'
import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { asJson } from '$lib/server/web/answer.ts'
import { getActor } from '$lib/server/web/signed-in.ts'

/** What happened to one row, as much of it as this person may see. */
export function GET({ locals, params, url }) {
	const { row } = readQuery(url, { row: textInAddress.default('') })
	return asJson<readonly HistoryEntry[]>(() =>
		locals.host.read('history', {
			table: Number(params.table),
			row,
			actor: getActor(locals),
			now: locals.now
		})
	)
}
