import { openThrottle } from '$lib/server/base/throttle.ts'
import { forForm } from '$lib/server/web/answer.ts'
import { error } from '@sveltejs/kit'

/** Nobody guesses a link; who tries very many of them is slowed down all the same. */
const wrong = openThrottle(100)

/** Opening a link does nothing: mail programs open links by themselves. */
export async function load({ locals, params }) {
	if (wrong.isSlowed(locals.from, locals.now))
		error(429, 'Too many links that lead nowhere. Wait a quarter of an hour.')
	const ask = await locals.host.read('outsideAsk', { token: params.token, now: locals.now })
	if (!ask) wrong.take(locals.from, locals.now)
	const { name } = await locals.host.read('workspace', undefined)
	return { ask, workspace: name }
}

export const actions = {
	default: async ({ request, params: { token }, locals: { host, now } }) => {
		const form = await request.formData()
		const typed = Object.fromEntries([...form].map(([name, value]) => [name, typeof value === 'string' ? value : '']))
		return forForm({ typed }, async () => {
			await host.write('answerOutside', { token, typed, now })
			return { sent: true }
		})
	}
}
