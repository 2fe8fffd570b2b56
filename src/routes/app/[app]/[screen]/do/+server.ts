import { z } from 'zod'
import { asJson, readBody } from '$lib/server/answer.ts'
import { placeOf } from '$lib/server/app-place.ts'
import { cellChangesSchema, rowIdSchema } from '$lib/server/cell-schema.ts'

const line = z.string().max(40)
const doSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('form'), line, cells: cellChangesSchema }),
	z.object({ kind: z.literal('change'), line, row: rowIdSchema, cells: cellChangesSchema }),
	z.object({ kind: z.literal('remove'), line, row: rowIdSchema }),
	z.object({ kind: z.literal('press'), line, row: rowIdSchema })
])

/** What staff do on a screen: send a form, change or remove a row, press a button. */
export function POST({ locals, params, request }) {
	return asJson(async () => {
		const { app, actor } = placeOf(locals, params)
		const asked = await readBody(request, doSchema)
		const place = { app, screen: params.screen, line: asked.line, actor, now: locals.now }
		switch (asked.kind) {
			case 'form':
				return locals.host.write('sendForm', { ...place, cells: asked.cells })
			case 'change':
				return locals.host.write('changeRecord', { ...place, row: asked.row, cells: asked.cells })
			case 'remove':
				return locals.host.write('removeRecord', { ...place, row: asked.row })
			case 'press':
				return locals.host.write('press', { ...place, row: asked.row })
		}
	})
}
