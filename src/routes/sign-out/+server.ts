import { redirect } from '@sveltejs/kit'
import { SESSION_COOKIE } from '$lib/server/people/sign-in.ts'
import { hashToken } from '$lib/server/token.ts'

export async function POST({ locals, cookies }) {
	const token = cookies.get(SESSION_COOKIE)
	if (token) await locals.host.write('endSession', { tokenHash: hashToken(token), now: locals.now })
	cookies.delete(SESSION_COOKIE, { path: '/' })
	redirect(303, '/sign-in')
}
