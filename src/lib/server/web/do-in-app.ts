/** What staff do on a screen: send a form, change or remove a row, press a button. */
import { z } from 'zod'
import { cellChangesSchema, rowIdSchema } from './cell-schema.ts'
import type { Room } from './app-place.ts'
import type { InApp } from '../apps/use-app.ts'

const line = z.string().max(40)

export const doSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('form'), line, cells: cellChangesSchema }),
	z.object({ kind: z.literal('change'), line, row: rowIdSchema, cells: cellChangesSchema }),
	z.object({ kind: z.literal('remove'), line, row: rowIdSchema }),
	z.object({ kind: z.literal('press'), line, row: rowIdSchema })
])

export function doInApp(room: Room, where: Omit<InApp, 'line'>, asked: z.infer<typeof doSchema>): Promise<unknown> {
	const place = { ...where, line: asked.line }
	switch (asked.kind) {
		case 'form':
			return room.write('sendForm', { ...place, cells: asked.cells })
		case 'change':
			return room.write('changeRecord', { ...place, row: asked.row, cells: asked.cells })
		case 'remove':
			return room.write('removeRecord', { ...place, row: asked.row })
		case 'press':
			return room.write('press', { ...place, row: asked.row })
	}
}
