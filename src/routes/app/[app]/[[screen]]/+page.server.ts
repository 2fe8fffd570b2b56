import { redirect } from '@sveltejs/kit'
import { loadStaffPage, placeOf } from '$lib/server/web/app-place.ts'
import { noteOpening } from '$lib/server/web/openings.ts'
import { getUser } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params, url }) {
	const app = Number(params.app)
	const { person, visits } = getUser(locals)
	// Who waits on the doorstep sees only its page.
	const waits = visits === undefined ? await locals.host.read('waitsAt', { person }) : []
	if (waits.some((door) => door.app === app)) redirect(303, `/door/${app}`)
	const shown = await loadStaffPage(locals, placeOf(locals, params), { screen: params.screen, url })
	const { screen } = shown.main
	if (screen && shown.lookingAs === null) noteOpening(locals.host, { app, screen: screen.id, person }, locals.now)
	return shown
}
