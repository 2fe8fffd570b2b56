import type { SavedBundle } from '$lib/core/app/bundle.ts'
import { withFiles } from '$lib/server/files/bundle-files.ts'
import { asJson } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** The app with those of its tables that this builder keeps, for another workspace; written down, as whatever leaves. */
export function GET({ locals, params }) {
	return asJson<SavedBundle>(async () => {
		const actor = getBuilder(locals)
		const made = await locals.host.read('makeBundle', { app: Number(params.app), actor, now: locals.now })
		const bundle = await withFiles(locals.host, made, actor)
		for (const { id } of bundle.tables)
			await locals.host.write('noteExport', { table: id, format: 'bundle', actor, now: locals.now })
		return bundle
	})
}
