import { loadStaffPage, placeOf } from '$lib/server/web/app-place.ts'

export async function load({ locals, params, url }) {
	return loadStaffPage(locals, placeOf(locals, params), { screen: params.screen, url })
}
