import {
	exampleSchema,
	previewLinesSchema,
	saveLinesSchema,
	type PreviewLines,
	type SaveLines
} from '$lib/core/requests/access.ts'
import { EXAMPLES } from '$lib/server/requests/pin-examples.ts'
import { handle } from '$lib/server/requests/handlers.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** What unsaved lines would come to. */
export function POST({ locals, params, request }) {
	return asJson<PreviewLines['answers']>(async () => {
		const actor = getBuilder(locals)
		const { lines } = await readBody(request, previewLinesSchema)
		return locals.host.read('access', { table: Number(params.table), draft: lines, actor, now: locals.now })
	})
}

/** Pins an example of who must, or must not, see a row, or takes one off. */
export function PATCH({ locals, params, request }) {
	return asJson(async () => {
		const of = { table: Number(params.table), actor: getBuilder(locals), now: locals.now }
		return handle(EXAMPLES, await readBody(request, exampleSchema), { threads: locals.host, of })
	})
}

export function PUT({ locals, params, request }) {
	return asJson<SaveLines['answers']>(async () => {
		const of = { table: Number(params.table), actor: getBuilder(locals), now: locals.now }
		await locals.host.write('saveLines', { ...(await readBody(request, saveLinesSchema)), ...of })
	})
}
