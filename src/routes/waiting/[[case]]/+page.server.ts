import { fail } from '@sveltejs/kit'
import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params }) {
	const actor = getNamedActor(locals)
	const { host, now } = locals
	const [lists, accessRequests] = await Promise.all([
		host.read('cases', { actor, now }),
		host.read('accessRequests', { actor })
	])
	const id = params.case ?? lists.waiting[0]?.id
	const sheet = id === undefined ? null : await forPage(() => host.read('case', { id, actor, now }))
	return { lists, accessRequests, sheet, asked: params.case !== undefined }
}

const decisionSchema = z.object({
	id: z.string().max(64),
	move: z.enum(['approve', 'decline', 'withdraw']),
	comment: z.string().max(2000),
	fingerprint: z.string().max(64)
})

export const actions = {
	default: async ({ request, locals }) => {
		const actor = getNamedActor(locals)
		const form = Object.fromEntries(await request.formData())
		const parsed = decisionSchema.safeParse(form)
		if (!parsed.success)
			return fail(422, {
				message: 'This decision cannot be read. Load the page again.',
				comment: String(form['comment'] ?? '')
			})
		try {
			await locals.host.write('decideCase', { ...parsed.data, actor, now: locals.now })
		} catch (error) {
			if (error instanceof AppError)
				return fail(error.code === 'conflict' ? 409 : 422, { message: error.message, comment: parsed.data.comment })
			throw error
		}
		return { decided: parsed.data.id }
	}
}
