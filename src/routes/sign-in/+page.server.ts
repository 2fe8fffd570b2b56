import { fail, redirect } from '@sveltejs/kit'
import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { dropBrief, readBrief } from '$lib/server/web/brief-cookies.ts'
import { isDemoDoorOpen } from '$lib/server/web/demo-door.ts'
import { beginSession, giveCode, signIn } from '$lib/server/sign-in/sign-in.ts'
import { safePath } from '$lib/server/base/safe-path.ts'
import { agentOf, enter, keepKnown, readKnown } from '$lib/server/sign-in/session-cookie.ts'

export async function load({ locals, url, cookies }) {
	const then = safePath(url.searchParams.get('then'))
	if (locals.user) redirect(303, then)
	const demo = await isDemoDoorOpen(locals.host, locals.from, url.hostname)
	const people = demo ? await locals.host.read('people', undefined) : []
	const { name } = await locals.host.read('workspace', undefined)
	const ways = await locals.host.read('signInWays', undefined)
	return { workspace: name, people, then, ...ways, ticket: readBrief(cookies, 'owed') }
}

const formSchema = z.object({ email: z.string().min(1).max(254), password: z.string().min(1).max(1000) })
const codeSchema = z.object({ ticket: z.string().max(100), code: z.string().max(20) })

export const actions = {
	password: async ({ request, locals, cookies, url }) => {
		const form = Object.fromEntries(await request.formData())
		const email = String(form['email'] ?? '')
		const parsed = formSchema.safeParse(form)
		if (!parsed.success) return fail(422, { email, message: 'Fill in your address and your password.' })
		try {
			const asking = { from: locals.from, agent: agentOf(request), browser: readKnown(cookies) }
			const entered = await signIn(locals.host, { ...parsed.data, ...asking })
			if ('ticket' in entered) return { email, ticket: entered.ticket }
			await enter({ host: locals.host, cookies, url }, entered.token)
			keepKnown({ host: locals.host, cookies, url }, entered.person)
		} catch (error) {
			if (error instanceof AppError) return fail(error.code === 'busy' ? 429 : 422, { email, message: error.message })
			throw error
		}
		redirect(303, safePath(url.searchParams.get('then')))
	},
	code: async ({ request, locals, cookies, url }) => {
		const parsed = codeSchema.safeParse(Object.fromEntries(await request.formData()))
		if (!parsed.success) return fail(422, { email: '', message: 'Begin again with your password.' })
		try {
			const { token, person } = await giveCode(locals.host, { ...parsed.data, agent: agentOf(request) })
			dropBrief(cookies, url, 'owed')
			await enter({ host: locals.host, cookies, url }, token)
			keepKnown({ host: locals.host, cookies, url }, person)
		} catch (error) {
			if (!(error instanceof AppError)) throw error
			// A wrong code may be tried again; a ticket that has ended begins anew.
			if (error.code !== 'invalid') dropBrief(cookies, url, 'owed')
			const again = error.code === 'invalid' ? { ticket: parsed.data.ticket } : {}
			return fail(422, { email: '', message: error.message, ...again })
		}
		redirect(303, safePath(url.searchParams.get('then')))
	},
	demo: async ({ request, locals, cookies, url }) => {
		if (!(await isDemoDoorOpen(locals.host, locals.from, url.hostname)))
			return fail(403, { email: '', message: 'Sign in with your password.' })
		const person = Number((await request.formData()).get('person'))
		const known = await locals.host.read('person', { person })
		if (!known) return fail(422, { email: '', message: 'Choose one of the people.' })
		try {
			const token = await beginSession(locals.host, { person, through: 'demo chooser', agent: agentOf(request) })
			await enter({ host: locals.host, cookies, url }, token)
		} catch (error) {
			if (error instanceof AppError) return fail(403, { email: '', message: error.message })
			throw error
		}
		redirect(303, safePath(url.searchParams.get('then')))
	}
}
