import type { TakenFile } from '$lib/core/requests/rows.ts'
import { error } from '@sveltejs/kit'
import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { asGivenFile, asJson } from '$lib/server/web/answer.ts'
import { placeOf, roomOf, roomToTry, type StaffPlace } from '$lib/server/web/app-place.ts'
import { getActor } from '$lib/server/web/signed-in.ts'

/** The file that lies in one cell, for whoever sees that cell; anybody else is answered as if there were none. */
export async function GET({ locals, params, url }) {
	const place = placeIn(locals, url)
	const { room } = place ? await roomOf(locals, place) : { room: locals.host }
	const actor = place?.actor ?? getActor(locals)
	const { row } = readQuery(url, { row: textInAddress.default('') })
	const file = await room.read('fileCell', { actor, column: Number(params.column), row, now: locals.now })
	if (!file) error(404, 'This file is not there, or not for you to see.')
	// A copy of the data has the files of its own; all others lie in the workspace.
	const body = (await room.files.read(file.sha)) ?? (await locals.host.files.read(file.sha))
	if (!body) error(404, 'The bytes of this file are missing. Ask a steward to bring them back from a copy.')
	return asGivenFile(body, file)
}

/** Takes a file in for a column, before the form or cell that it belongs to is sent; in the Lookout into the copy. */
export function PUT({ locals, params, request, url }) {
	const place = placeIn(locals, url)
	const actor = place?.actor ?? getActor(locals)
	const { name } = readQuery(url, { name: textInAddress.default('') })
	return asJson<TakenFile>(async () => {
		if (!request.body) error(422, 'The file is empty. Choose another.')
		const { files } = place ? (await roomToTry(locals, place)).room : locals.host
		const column = Number(params.column)
		return files.take({ column, name, body: request.body, actor })
	})
}

/** In the Lookout: as whom it shows. */
function placeIn(locals: App.Locals, url: URL): StaffPlace | undefined {
	const { as: token } = readQuery(url, { as: textInAddress.optional() })
	return token === undefined ? undefined : placeOf(locals, { token })
}
