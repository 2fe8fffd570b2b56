import { fail, redirect } from '@sveltejs/kit'
import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { findWeakness, hashPassword } from '$lib/server/sign-in/passwords.ts'
import { beginSession } from '$lib/server/sign-in/sign-in.ts'
import { agentOf, enter } from '$lib/server/sign-in/session-cookie.ts'

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
	name: z.string().trim().max(120).optional(),
	email: z.email('This is no email address.').max(254).optional(),
	workspaceName: z.string().trim().max(80).optional(),
	timeZone: z.string().max(60).optional()
})

export const actions = {
	default: async ({ request, params, locals, cookies, url }) => {
		let owesCode: boolean
		const { host, now } = locals
		const { token } = params
		const link = await host.read('oneTimeLink', { token, now })
		if (!link) return fail(404, { message: 'This link has been used, or its time is over. Ask for a new one.' })
		const form = Object.fromEntries(await request.formData())
		const { password: _never, ...typed } = form
		const parsed = formSchema.safeParse(form)
		if (!parsed.success) return fail(422, { message: parsed.error.issues[0]?.message ?? '', ...typed })
		const { password, name = '', email = '', workspaceName = '', timeZone = 'UTC' } = parsed.data
		const first = link.kind === 'first steward'
		if (first && [name, email, workspaceName].some((each) => each === ''))
			return fail(422, { message: 'Fill in your name, your address and what the workspace is called.', ...typed })
		const weakness = findWeakness(password, [link.name, link.email, name, email, workspaceName])
		if (weakness) return fail(422, { message: weakness, ...typed })
		try {
			const hash = await hashPassword(password)
			const { person } = first
				? await host.write('startWorkspace', { token, name, email, hash, workspaceName, timeZone, now })
				: await host.write('useOneTimeLink', { token, hash, now })
			const through = first ? 'first start' : link.kind
			// A mailbox alone must not do without the second step: they sign in with the new password and a code.
			owesCode = (await host.read('secondFactor', { person }))?.confirmed ?? false
			if (!owesCode)
				await enter(
					{ host: locals.host, cookies, url },
					await beginSession(host, { person, through, agent: agentOf(request) })
				)
		} catch (error) {
			if (error instanceof AppError) return fail(422, { message: error.message, ...typed })
			throw error
		}
		redirect(303, owesCode ? '/sign-in' : '/')
	}
}
