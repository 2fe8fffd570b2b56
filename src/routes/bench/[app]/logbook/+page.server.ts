import { getBuilder } from '$lib/server/signed-in.ts'

export async function load({ locals }) {
	const actor = getBuilder(locals)
	const [entries, broken] = await Promise.all([
		locals.host.read('logbook', { actor }),
		locals.host.read('brokenSeal', undefined)
	])
	return { entries, broken }
}
