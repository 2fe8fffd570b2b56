import { error } from '@sveltejs/kit'
import { documentSchema, type DocumentRequests } from '$lib/core/requests/bench.ts'
import { plainFileName } from '$lib/core/capture/attachment.ts'
import { readQuery, wholeInAddress } from '$lib/server/web/address.ts'
import { asJson, forPage, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** The draft of an app, or one of its releases, as a file: JSON as its published schema has it. */
export async function GET({ locals, params, url }) {
	getBuilder(locals)
	const app = Number(params.app)
	const { release } = readQuery(url, { release: wholeInAddress.optional() })
	const document = await forPage(async () =>
		release === undefined
			? (await locals.host.read('draft', { app })).document
			: locals.host.read('release', { app, number: release })
	)
	if (!document) error(404, 'There is no such release.')
	const body = JSON.stringify({ $schema: `${locals.host.origin}/schema/app.json`, ...document }, null, '\t')
	return new Response(`${body}\n`, {
		headers: {
			'content-type': 'application/json',
			'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(plainFileName(`${document.name}.json`))}`,
			'cache-control': 'no-store'
		}
	})
}

/** Compares a file with the draft, puts it in, or checks what the draft says. */
export function POST({ locals, params, request }) {
	return asJson<DocumentRequests['answers']>(async () => {
		const asked = await readBody(request, documentSchema)
		const given = { app: Number(params.app), actor: getBuilder(locals), now: locals.now }
		if (asked.kind === 'check') return locals.host.read('lookOver', given)
		const { text } = asked
		return asked.kind === 'compare'
			? locals.host.read('compareDocument', { ...given, text })
			: locals.host.write('putDocument', { ...given, text })
	})
}
