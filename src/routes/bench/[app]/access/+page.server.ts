import { readQuery, wholeInAddress } from '$lib/server/web/address.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export async function load({ locals, url, parent }) {
	const actor = getBuilder(locals)
	const { host, now } = locals
	const { bench } = await parent()
	const owned = bench.tables.filter((table) => table.owned)
	if (url.searchParams.has('everybody') && owned.length > 0) {
		const matrix = await forPage(() => host.read('accessMatrix', { actor, now }))
		return { table: null, owned, sheet: null, proposed: [], matrix }
	}
	const { table: asked } = readQuery(url, { table: wholeInAddress.optional() })
	const table = owned.find((each) => each.id === asked) ?? owned[0]
	const sheet = table ? await forPage(() => host.read('access', { table: table.id, actor, now })) : null
	const isBare = table !== undefined && sheet?.lines.length === 0
	const proposed = isBare ? await host.read('proposeAccess', { table: table.id, actor, now }) : []
	return { table: table ?? null, owned, sheet, proposed, matrix: null }
}
