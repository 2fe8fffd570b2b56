import { forPage } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** What every bay of the Bench works with: the draft, the tables, and the names that sentences use. */
export async function load({ locals, params, depends }) {
	depends('app:bench')
	const actor = getBuilder(locals)
	const app = Number(params.app)
	const { host, now } = locals
	const [draft, bench] = await Promise.all([
		forPage(() => host.read('draft', { app })),
		host.read('bench', { actor, now })
	])
	return { draft, bench }
}
