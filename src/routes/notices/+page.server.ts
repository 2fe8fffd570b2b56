import { getNamed } from '$lib/server/web/signed-in.ts'

export async function load({ locals }) {
	return { told: await locals.host.read('notices', { person: getNamed(locals).person }) }
}

export const actions = {
	clear: async ({ request, locals }) => {
		const upto = String((await request.formData()).get('upto') ?? '')
		await locals.host.write('clearNotices', { upto, person: getNamed(locals).person })
	},
	readAll: async ({ request, locals }) => {
		const upto = String((await request.formData()).get('upto') ?? '')
		await locals.host.write('readAllNotices', { upto, person: getNamed(locals).person, now: locals.now })
	}
}
