import { z } from 'zod'
import { asJson, readBody } from '$lib/server/answer.ts'
import { cellChangesSchema, rowIdSchema } from '$lib/server/cell-schema.ts'
import { getActor } from '$lib/server/signed-in.ts'

/** A page of a table's rows, as much as this person may see. */
export function GET({ locals, params, url }) {
	return asJson(async () => {
		const query = url.searchParams
		const column = Number(query.get('sort') ?? 0)
		const request = {
			table: Number(params.table),
			limit: Number(query.get('limit') ?? 100),
			offers: true,
			after: query.get('after') ?? undefined,
			row: query.get('row') ?? undefined,
			...(column > 0 ? { sort: { column, descending: query.get('descending') === '1' } } : {})
		}
		return locals.host.read('rows', { actor: getActor(locals), request, now: locals.now })
	})
}

const changeSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('add'), cells: cellChangesSchema }),
	z.object({ kind: z.literal('change'), row: rowIdSchema, cells: cellChangesSchema }),
	z.object({ kind: z.literal('remove'), row: rowIdSchema }),
	z.object({ kind: z.literal('restore'), row: rowIdSchema })
])

/** A change from the grid: a cell, a new row, a removal, or taking one of these back. */
export function POST({ locals, params, request }) {
	return asJson(async () => {
		const change = { ...(await readBody(request, changeSchema)), table: Number(params.table) }
		const context = { actor: getActor(locals), now: locals.now, through: 'grid' }
		const [changed] = await locals.host.write('changeRows', { changes: [change], context })
		return changed
	})
}
