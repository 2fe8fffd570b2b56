import { bundleRequestSchema, type BundleRequests } from '$lib/core/requests/bundles.ts'
import { takeFiles } from '$lib/server/files/bundle-files.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** Looks at a bundle, or puts it in. */
export function POST({ locals, request }) {
	return asJson<BundleRequests['answers']>(async () => {
		const actor = getBuilder(locals)
		const { kind, name, text } = await readBody(request, bundleRequestSchema)
		const { host, now } = locals
		if (kind === 'look') return host.read('lookAtBundle', { name, text, actor, now })
		return host.write('putBundle', { name, text: await takeFiles(host, text, actor), actor, now })
	})
}
