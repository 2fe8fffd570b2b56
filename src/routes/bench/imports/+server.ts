import { error } from '@sveltejs/kit'
import { undoImportSchema, type GivenImport, type UndoImport } from '$lib/core/requests/imports.ts'
import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** Takes a file in, as it comes, onto disk; nothing is brought in yet. */
export function PUT({ locals, request, url }) {
	const actor = getBuilder(locals)
	const { body } = request
	if (!body) error(422, 'The file is empty. Nothing was brought in.')
	const { name } = readQuery(url, { name: textInAddress.default('file') })
	return asJson<GivenImport>(() => locals.host.imports.take(name, body, actor))
}

/** Undoes the last bringing-in into a table. */
export function POST({ locals, request }) {
	return asJson<UndoImport['answers']>(async () => {
		const actor = getBuilder(locals)
		const { undo } = await readBody(request, undoImportSchema)
		return locals.host.imports.undo(undo, actor)
	})
}
