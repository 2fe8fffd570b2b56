import { error } from '@sveltejs/kit'
import { asJson } from '$lib/server/answer.ts'
import { getBuilder } from '$lib/server/signed-in.ts'

/** Takes a file in, as it comes, onto disk; nothing is brought in yet. */
export function PUT({ locals, request, url }) {
	const actor = getBuilder(locals)
	const { body } = request
	if (!body) error(422, 'The file is empty. Nothing was brought in.')
	return asJson(() => locals.host.imports.take(url.searchParams.get('name') ?? 'file', body, actor))
}
