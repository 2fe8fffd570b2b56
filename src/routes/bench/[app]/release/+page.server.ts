import { forForm } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params, depends }) {
	depends('app:draft')
	getBuilder(locals)
	const app = Number(params.app)
	const [current, findings, releases] = await Promise.all([
		locals.host.read('draft', { app }),
		locals.host.read('checkDraft', { app, now: locals.now }),
		locals.host.read('releases', { app })
	])
	return { current: { live: current.live, ahead: current.ahead }, findings, releases }
}

export const actions = {
	release: async ({ request, locals, params }) => {
		const actor = getBuilder(locals)
		const form = await request.formData()
		const note = String(form.get('note') ?? '').slice(0, 500)
		const asked = { app: Number(params.app), note, tells: form.has('tells'), actor, now: locals.now }
		return forForm({}, async () => ({ released: await locals.host.write('releaseApp', asked) }))
	},
	putBack: async ({ request, locals, params }) => {
		const actor = getBuilder(locals)
		const number = Number((await request.formData()).get('number'))
		return forForm({}, async () => {
			await locals.host.write('putBackRelease', { app: Number(params.app), number, actor, now: locals.now })
			return { putBack: number }
		})
	}
}
