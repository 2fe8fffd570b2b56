import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { openThrottle } from '$lib/server/base/throttle.ts'
import { forForm, parseForm } from '$lib/server/web/answer.ts'

const asked = openThrottle(10)
const emailSchema = z.object({ email: z.email().max(254) })

export async function load({ locals }) {
	return { workspace: (await locals.host.read('workspace', undefined)).name }
}

export const actions = {
	/** The answer is the same whether the address is known or not. */
	default: async ({ request, locals }) => {
		const form = Object.fromEntries(await request.formData())
		return forForm({ sent: false }, async () => {
			const { email } = parseForm(form, emailSchema, 'Write your address, such as imke.dahl@varrow.example.')
			if (!asked.take(locals.from, locals.now))
				throw new AppError('busy', 'That was asked often from here. Wait a quarter of an hour.')
			await locals.host.write('askNewPassword', { email, now: locals.now })
			return { message: '', sent: true }
		})
	}
}
