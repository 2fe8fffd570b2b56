import { error } from '@sveltejs/kit'
import { z } from 'zod'
import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** Takes a file in, as it comes, onto disk; nothing is brought in yet. */
export function PUT({ locals, request, url }) {
	const actor = getBuilder(locals)
	const { body } = request
	if (!body) error(422, 'The file is empty. Nothing was brought in.')
	const { name } = readQuery(url, { name: textInAddress.default('file') })
	return asJson(() => locals.host.imports.take(name, body, actor))
}

const undoSchema = z.object({ undo: z.number().int() })

/** Undoes the last bringing-in into a table. */
export function POST({ locals, request }) {
	return asJson(async () => {
		const actor = getBuilder(locals)
		const { undo } = await readBody(request, undoSchema)
		return locals.host.imports.undo(undo, actor)
	})
}
