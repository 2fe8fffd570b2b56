import { redirect } from '@sveltejs/kit'
import { AppError } from '$lib/core/app-error.ts'
import { openThrottle } from '$lib/server/base/throttle.ts'
import { keepLook } from '$lib/server/sign-in/look-cookie.ts'
import { agentOf } from '$lib/server/sign-in/session-cookie.ts'
import { forForm } from '$lib/server/web/answer.ts'

const tried = openThrottle(20)

/** Opening it spends nothing: what looks at links before their reader does would use the code up. */
export async function load({ locals, params }) {
	return { workspace: (await locals.host.read('workspace', undefined)).name, code: params.code ?? '' }
}

export const actions = {
	default: async ({ request, locals, cookies, url }) => {
		const code = String((await request.formData()).get('code') ?? '').slice(0, 40)
		const opened = await forForm({ code }, async () => {
			if (!tried.take(locals.from, locals.now))
				throw new AppError('busy', 'Too many codes were tried from here. Wait a quarter of an hour.')
			const redeemed = locals.host.phones.redeem(code, agentOf(request))
			if (!redeemed)
				throw new AppError(
					'not_found',
					'This code was used already, or its two minutes are over. Ask for a new one at the desk.'
				)
			tried.giveBack(locals.from)
			keepLook(cookies, url, redeemed.cookie)
			return redeemed
		})
		if ('look' in opened) redirect(303, `/as/${opened.look}`)
		return opened
	}
}
