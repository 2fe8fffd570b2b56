import { fail } from '@sveltejs/kit'
import { z } from 'zod'
import { openThrottle } from '$lib/server/base/throttle.ts'

const asked = openThrottle(10)

export async function load({ locals }) {
	return { workspace: (await locals.host.read('workspace', undefined)).name }
}

export const actions = {
	/** The answer is the same whether the address is known or not. */
	default: async ({ request, locals }) => {
		const email = z
			.email()
			.max(254)
			.safeParse((await request.formData()).get('email'))
		if (!email.success)
			return fail(422, { message: 'Write your address, such as imke.dahl@varrow.example.', sent: false })
		if (!asked.take(locals.from, locals.now))
			return fail(429, { message: 'That was asked often from here. Wait a quarter of an hour.', sent: false })
		await locals.host.write('askNewPassword', { email: email.data, now: locals.now })
		return { message: '', sent: true }
	}
}
