import { forPage } from '$lib/server/answer.ts'
import { getBuilder } from '$lib/server/signed-in.ts'

export async function load({ locals, url, parent }) {
	const actor = getBuilder(locals)
	const { bench } = await parent()
	const kept = bench.tables.filter((table) => table.kept)
	const asked = Number(url.searchParams.get('table'))
	const table = kept.find((each) => each.id === asked) ?? kept[0]
	const sheet = table
		? await forPage(() => locals.host.read('access', { table: table.id, actor, now: locals.now }))
		: null
	return { table: table ?? null, kept, sheet }
}
