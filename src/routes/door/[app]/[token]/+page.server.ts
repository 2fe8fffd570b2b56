import { fail, redirect } from '@sveltejs/kit'
import { AppError } from '$lib/core/app-error.ts'
import { findWeakness, hashPassword } from '$lib/server/sign-in/passwords.ts'
import { beginSession } from '$lib/server/sign-in/sign-in.ts'
import { agentOf, enter } from '$lib/server/sign-in/session-cookie.ts'

/** Opening a link does nothing: mail programs open links by themselves. It is used up by the button. */
export async function load({ locals, params }) {
	const [signUp, { name }] = await Promise.all([
		locals.host.read('signUp', { token: params.token, now: locals.now }),
		locals.host.read('workspace', undefined)
	])
	return { signUp, workspace: name }
}

export const actions = {
	default: async ({ request, params, locals, cookies, url }) => {
		const { host, now } = locals
		const { token } = params
		const signUp = await host.read('signUp', { token, now })
		if (!signUp) return fail(404, { message: 'This link has been used, or its time is over. Ask again at the door.' })
		const password = String((await request.formData()).get('password') ?? '').slice(0, 1000)
		const weakness = signUp.known ? undefined : findWeakness(password, [signUp.name, signUp.email])
		if (weakness) return fail(422, { message: weakness })
		let entered: { person: number; isNew: boolean; app: number }
		try {
			const hash = signUp.known ? undefined : await hashPassword(password)
			entered = await host.write('completeSignUp', { token, hash, now })
			if (entered.isNew) {
				const session = { person: entered.person, through: 'door', agent: agentOf(request) }
				await enter({ host: locals.host, cookies, url }, await beginSession(host, session))
			}
		} catch (error) {
			if (error instanceof AppError) return fail(422, { message: error.message })
			throw error
		}
		const next = `/app/${entered.app}`
		// A mailbox alone does not stand for a password that is there already, or for its second step.
		redirect(303, entered.isNew ? next : `/sign-in?then=${encodeURIComponent(next)}`)
	}
}
