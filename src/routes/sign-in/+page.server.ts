import { redirect, type RequestEvent } from '@sveltejs/kit'
import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { safePath } from '$lib/server/base/safe-path.ts'
import { agentOf, enter, keepKnown, readKnown } from '$lib/server/sign-in/session-cookie.ts'
import { beginSession, giveCode, signIn, type Entered } from '$lib/server/sign-in/sign-in.ts'
import { forForm, parseForm } from '$lib/server/web/answer.ts'
import { dropBrief, readBrief } from '$lib/server/web/brief-cookies.ts'
import { isDemoDoorOpen } from '$lib/server/web/demo-door.ts'

export async function load({ locals, url, cookies }) {
	const { host } = locals
	const then = safePath(url.searchParams.get('then'))
	if (locals.user) redirect(303, then)
	const people = (await isDemoDoorOpen(host, locals.from, url.hostname)) ? await host.read('people', undefined) : []
	const { name: workspace } = await host.read('workspace', undefined)
	return { workspace, people, then, ...(await host.read('signInWays', undefined)), ticket: readBrief(cookies, 'owed') }
}

const passwordSchema = z.object({ email: z.string().min(1).max(254), password: z.string().min(1).max(1000) })
const codeSchema = z.object({ ticket: z.string().max(100), code: z.string().max(20) })
const demoSchema = z.object({ person: z.coerce.number().int() })

export const actions = {
	password: async (event) => {
		const { request, locals, cookies } = event
		const form = Object.fromEntries(await request.formData())
		const email = String(form['email'] ?? '')
		return forForm({ email }, async () => {
			const given = parseForm(form, passwordSchema, 'Fill in your address and your password.')
			const asking = { from: locals.from, agent: agentOf(request), browser: readKnown(cookies) }
			const entered = await signIn(locals.host, { ...given, ...asking })
			return 'ticket' in entered ? { email, ticket: entered.ticket } : goIn(event, entered)
		})
	},
	code: async (event) => {
		const form = Object.fromEntries(await event.request.formData())
		// A wrong code may be tried again; a ticket that has ended begins anew.
		const kept: { email: string; ticket?: string } = { email: '' }
		return forForm(kept, async () => {
			const given = parseForm(form, codeSchema, 'Begin again with your password.')
			const entered = await giveCode(event.locals.host, { ...given, agent: agentOf(event.request) }).catch((error) => {
				if (error instanceof AppError && error.code === 'invalid') kept.ticket = given.ticket
				else if (error instanceof AppError) dropBrief(event.cookies, event.url, 'owed')
				throw error
			})
			dropBrief(event.cookies, event.url, 'owed')
			return goIn(event, entered)
		})
	},
	demo: async (event) => {
		const { request, locals, cookies, url } = event
		const { host } = locals
		const form = Object.fromEntries(await request.formData())
		return forForm({ email: '' }, async () => {
			if (!(await isDemoDoorOpen(host, locals.from, url.hostname)))
				throw new AppError('forbidden', 'Sign in with your password.')
			const { person } = parseForm(form, demoSchema, 'Choose one of the people.')
			if (!(await host.read('person', { person }))) throw new AppError('invalid', 'Choose one of the people.')
			const token = await beginSession(host, { person, through: 'demo chooser', agent: agentOf(request) })
			await enter({ host, cookies, url }, token)
			redirect(303, safePath(url.searchParams.get('then')))
		})
	}
}

/** From now on this browser is known to sign them in. */
async function goIn({ locals: { host }, cookies, url }: RequestEvent, { token, person }: Entered): Promise<never> {
	await enter({ host, cookies, url }, token)
	keepKnown({ host, cookies, url }, person)
	redirect(303, safePath(url.searchParams.get('then')))
}
