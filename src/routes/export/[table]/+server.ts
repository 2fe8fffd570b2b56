import { error } from '@sveltejs/kit'
import { exportCsv } from '$lib/server/rows/export-csv.ts'
import { getActor } from '$lib/server/signed-in.ts'

/** A table as CSV (RFC 4180), page by page through the same door as every read. */
export async function GET({ locals, params }) {
	const actor = getActor(locals)
	const exported = await exportCsv(locals.host, { table: Number(params.table), actor, now: locals.now })
	if (!exported) error(404, 'This table is not there, or not for you to see.')
	const name = encodeURIComponent(`${exported.name}.csv`)
	return new Response(exported.stream, {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename*=UTF-8''${name}`,
			'cache-control': 'no-store'
		}
	})
}
