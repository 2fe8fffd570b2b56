import { fail, redirect, type Cookies } from '@sveltejs/kit'
import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { isDemoDoorOpen } from '$lib/server/demo-door.ts'
import { beginSession, SESSION_COOKIE, SESSION_MS, signIn } from '$lib/server/people/sign-in.ts'
import { safePath } from '$lib/server/safe-path.ts'

export async function load({ locals, url, getClientAddress }) {
	const then = safePath(url.searchParams.get('then'))
	if (locals.user) redirect(303, then)
	const demo = await isDemoDoorOpen(locals.host, getClientAddress(), url.hostname)
	const people = demo ? await locals.host.read('people', undefined) : []
	const { name } = await locals.host.read('workspace', undefined)
	return { workspace: name, people, then }
}

const formSchema = z.object({ email: z.string().min(1).max(254), password: z.string().min(1).max(1000) })

export const actions = {
	password: async ({ request, locals, cookies, url, getClientAddress }) => {
		const form = Object.fromEntries(await request.formData())
		const email = String(form['email'] ?? '')
		const parsed = formSchema.safeParse(form)
		if (!parsed.success) return fail(422, { email, message: 'Fill in your address and your password.' })
		try {
			const token = await signIn(locals.host, { ...parsed.data, from: getClientAddress() })
			setCookie(cookies, token, url)
		} catch (error) {
			if (error instanceof AppError) return fail(error.code === 'busy' ? 429 : 422, { email, message: error.message })
			throw error
		}
		redirect(303, safePath(url.searchParams.get('then')))
	},
	demo: async ({ request, locals, cookies, url, getClientAddress }) => {
		if (!(await isDemoDoorOpen(locals.host, getClientAddress(), url.hostname)))
			return fail(403, { email: '', message: 'Sign in with your password.' })
		const person = Number((await request.formData()).get('person'))
		const known = await locals.host.read('person', { person })
		if (!known) return fail(422, { email: '', message: 'Choose one of the people.' })
		setCookie(cookies, await beginSession(locals.host, person, 'demo chooser'), url)
		redirect(303, safePath(url.searchParams.get('then')))
	}
}

function setCookie(cookies: Cookies, token: string, url: URL): void {
	cookies.set(SESSION_COOKIE, token, {
		path: '/',
		httpOnly: true,
		// Lax, so that a link in a message finds the reader signed in; every change is refused from elsewhere besides.
		sameSite: 'lax',
		secure: url.protocol === 'https:',
		maxAge: SESSION_MS / 1000
	})
}
