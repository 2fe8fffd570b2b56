import { z } from 'zod'
import { lineSchema } from '$lib/core/workspace/document.ts'
import { asJson, readBody } from '$lib/server/answer.ts'
import { getBuilder } from '$lib/server/signed-in.ts'

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

export function PUT({ locals, params, request }) {
	return asJson(async () => {
		const actor = getBuilder(locals)
		const { lines, version } = await readBody(request, saveSchema)
		await locals.host.write('saveLines', { table: Number(params.table), lines, version, actor, now: locals.now })
	})
}
