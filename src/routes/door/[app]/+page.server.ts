import { error, redirect } from '@sveltejs/kit'
import { z } from 'zod'
import { beginVisit, comeToDoor } from '$lib/server/sign-in/come-to-door.ts'
import { findVouched, forgetVouched } from '$lib/server/sign-in/outside-sign-in.ts'
import { agentOf, enter } from '$lib/server/sign-in/session-cookie.ts'
import { forForm, parseForm } from '$lib/server/web/answer.ts'
import { dropBrief, readBrief } from '$lib/server/web/brief-cookies.ts'
import { findNamed } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params, cookies, depends }) {
	depends('app:door')
	const { host } = locals
	const named = findNamed(locals)
	const app = Number(params.app)
	const door = Number.isInteger(app) ? await host.read('door', { app, person: named?.person }) : null
	if (!door) error(404, 'There is nothing at this address.')
	const { name: workspace } = await host.read('workspace', undefined)
	const vouched = named ? undefined : findVouched(host, readBrief(cookies, 'vouched'))
	const { name, email } = vouched ?? {}
	return { door, workspace, isIn: named !== undefined, vouched: vouched ? { name, email } : null }
}

const knowsSchema = z.object({
	code: z.string().trim().max(200).default(''),
	answer: z.string().trim().max(2000).default('')
})
const writtenSchema = z.object({
	name: z.string().trim().min(1, 'Write your name.').max(120),
	email: z.email('This is no email address.').max(254)
})

export const actions = {
	come: async ({ request, params, locals, cookies, url }) => {
		const app = Number(params.app)
		const form = Object.fromEntries(await request.formData())
		const named = findNamed(locals)
		const token = readBrief(cookies, 'vouched')
		return forForm(form, async () => {
			const vouched = named ? undefined : findVouched(locals.host, token)
			const comer = named ?? (vouched ? { vouched } : parseForm(form, writtenSchema))
			const coming = { ...parseForm(form, knowsSchema), app, comer, from: locals.from, agent: agentOf(request) }
			const came = await comeToDoor(locals.host, coming)
			if (came.is === 'sent') return { sentTo: came.to }
			if (came.is === 'waiting') return { waiting: true }
			if (came.token !== undefined) {
				forgetVouched(token)
				dropBrief(cookies, url, 'vouched')
				await enter({ host: locals.host, cookies, url }, came.token)
			}
			redirect(303, `/app/${app}`)
		})
	},
	visit: ({ params, locals: { host, from }, cookies, request, url }) =>
		forForm({}, async () => {
			const app = Number(params.app)
			await enter({ host, cookies, url }, await beginVisit(host, { app, from, agent: agentOf(request) }))
			redirect(303, `/app/${app}`)
		})
}
