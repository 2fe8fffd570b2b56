import { redirect } from '@sveltejs/kit'
import { z } from 'zod'
import { agentOf, enter } from '$lib/server/sign-in/session-cookie.ts'
import { useLink } from '$lib/server/sign-in/use-link.ts'
import { forForm, parseForm } from '$lib/server/web/answer.ts'

/** Opening a link does nothing: mail programs open links by themselves. It is used up when a password is chosen. */
export async function load({ locals, params }) {
	const [link, { name }] = await Promise.all([
		locals.host.read('oneTimeLink', { token: params.token, now: locals.now }),
		locals.host.read('workspace', undefined)
	])
	return { link, workspace: name }
}

const formSchema = z.object({
	password: z.string().max(1000),
	name: z.string().trim().max(120).default(''),
	email: z.union([z.literal(''), z.email('This is no email address.').max(254)]).default(''),
	workspaceName: z.string().trim().max(80).default(''),
	timeZone: z.string().max(60).default('UTC')
})

export const actions = {
	default: async ({ request, params: { token }, locals: { host }, cookies, url }) => {
		const { password, ...typed } = Object.fromEntries(await request.formData())
		return forForm(typed, async () => {
			const given = parseForm({ ...typed, password }, formSchema)
			const session = await useLink(host, { ...given, token, agent: agentOf(request) })
			if (session !== undefined) await enter({ host, cookies, url }, session)
			redirect(303, session === undefined ? '/sign-in' : '/')
		})
	}
}
