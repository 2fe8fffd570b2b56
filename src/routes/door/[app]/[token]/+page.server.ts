import { redirect } from '@sveltejs/kit'
import { completeSignUp } from '$lib/server/sign-in/use-link.ts'
import { agentOf, enter } from '$lib/server/sign-in/session-cookie.ts'
import { forForm } from '$lib/server/web/answer.ts'

/** Opening a link does nothing: mail programs open links by themselves. It is used up by the button. */
export async function load({ locals, params }) {
	const [signUp, { name }] = await Promise.all([
		locals.host.read('signUp', { token: params.token, now: locals.now }),
		locals.host.read('workspace', undefined)
	])
	return { signUp, workspace: name }
}

export const actions = {
	default: ({ request, params: { token }, locals: { host }, cookies, url }) =>
		forForm({}, async () => {
			const password = String((await request.formData()).get('password') ?? '').slice(0, 1000)
			const { app, session } = await completeSignUp(host, { token, password, agent: agentOf(request) })
			if (session !== undefined) await enter({ host, cookies, url }, session)
			const next = `/app/${app}`
			redirect(303, session === undefined ? `/sign-in?then=${encodeURIComponent(next)}` : next)
		})
}
