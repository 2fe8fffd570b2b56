import { z } from 'zod'
import { forForm, forPage, parseForm } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'
import { readWaiting } from '$lib/server/web/waiting.ts'

export async function load({ locals, params }) {
	const actor = getNamedActor(locals)
	const { host, now } = locals
	const waits = await readWaiting(locals)
	const id = params.case ?? waits.lists.waiting[0]?.id
	const sheet = id === undefined ? null : await forPage(() => host.read('case', { id, actor, now }))
	// With no decision to show, what is asked soonest stands open.
	const next = sheet ? undefined : waits.asks[0]?.id
	const ask = next === undefined ? null : await forPage(() => host.read('ask', { id: next, actor, now }))
	return { waits, sheet, ask, asked: params.case !== undefined }
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
