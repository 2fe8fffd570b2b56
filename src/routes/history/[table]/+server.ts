import { asJson } from '$lib/server/answer.ts'
import { getActor } from '$lib/server/signed-in.ts'

/** What happened to one row, as much of it as this person may see. */
export function GET({ locals, params, url }) {
	return asJson(() =>
		locals.host.read('history', {
			table: Number(params.table),
			row: url.searchParams.get('row') ?? '',
			actor: getActor(locals),
			now: locals.now
		})
	)
}
