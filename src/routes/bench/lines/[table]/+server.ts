import { z } from 'zod'
import { lineSchema } from '$lib/core/workspace/document.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { rowIdSchema } from '$lib/server/web/cell-schema.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

const previewSchema = z.object({ lines: z.array(z.unknown()).max(200) })
const saveSchema = z.object({ lines: z.array(lineSchema).max(200), version: z.number().int() })

/** What unsaved lines would come to. */
export function POST({ locals, params, request }) {
	return asJson(async () => {
		const actor = getBuilder(locals)
		const { lines } = await readBody(request, previewSchema)
		return locals.host.read('access', { table: Number(params.table), draft: lines, actor, now: locals.now })
	})
}

const exampleSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('pin'), person: z.number().int(), row: rowIdSchema, sees: z.boolean() }),
	z.object({ kind: z.literal('unpin'), person: z.number().int(), row: rowIdSchema })
])

/** Pins an example of who must, or must not, see a row, or takes one off. */
export function PATCH({ locals, params, request }) {
	return asJson(async () => {
		const actor = getBuilder(locals)
		const { kind, ...example } = await readBody(request, exampleSchema)
		const asked = { ...example, table: Number(params.table), actor, now: locals.now }
		await (kind === 'pin' ? locals.host.write('pinExample', asked as never) : locals.host.write('unpinExample', asked))
	})
}

export function PUT({ locals, params, request }) {
	return asJson(async () => {
		const actor = getBuilder(locals)
		const { lines, version } = await readBody(request, saveSchema)
		await locals.host.write('saveLines', { table: Number(params.table), lines, version, actor, now: locals.now })
	})
}
