import { z } from 'zod'
import { forForm, forPage, parseForm } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params }) {
	const actor = getNamedActor(locals)
	const { host, now } = locals
	const [lists, accessRequests, givenUp] = await Promise.all([
		host.read('cases', { actor, now }),
		host.read('accessRequests', { actor }),
		host.read('runsGivenUp', { actor, now })
	])
	const id = params.case ?? lists.waiting[0]?.id
	const sheet = id === undefined ? null : await forPage(() => host.read('case', { id, actor, now }))
	return { lists, accessRequests, givenUp, sheet, asked: params.case !== undefined }
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
		return forForm({ comment: String(form['comment'] ?? '') }, async () => {
			const decision = parseForm(form, decisionSchema, 'This decision cannot be read. Load the page again.')
			await locals.host.write('decideCase', { ...decision, actor, now: locals.now })
			return { decided: decision.id }
		})
	}
}
