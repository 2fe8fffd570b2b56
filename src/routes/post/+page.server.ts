import { getNamedActor } from '$lib/server/web/signed-in.ts'

export async function load({ locals, depends }) {
	depends('app:post')
	return { tray: await locals.host.read('tray', { actor: getNamedActor(locals) }), origin: locals.host.origin }
}
