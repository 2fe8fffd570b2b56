import { readQuery, wholeInAddress } from '$lib/server/web/address.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export async function load({ locals, url, parent }) {
	const actor = getBuilder(locals)
	const { host, now } = locals
	const { bench } = await parent()
	const kept = bench.tables.filter((table) => table.kept)
	if (url.searchParams.has('everybody') && kept.length > 0) {
		const matrix = await forPage(() => host.read('accessMatrix', { actor, now }))
		return { table: null, kept, sheet: null, proposed: [], matrix }
	}
	const { table: asked } = readQuery(url, { table: wholeInAddress.optional() })
	const table = kept.find((each) => each.id === asked) ?? kept[0]
	const sheet = table ? await forPage(() => host.read('access', { table: table.id, actor, now })) : null
	const isBare = table !== undefined && sheet?.lines.length === 0
	const proposed = isBare ? await host.read('proposeAccess', { table: table.id, actor, now }) : []
	return { table: table ?? null, kept, sheet, proposed, matrix: null }
}
