import { redirect } from '@sveltejs/kit'
import { endSession } from '$lib/server/sign-in/session-cookie.ts'

export async function POST({ locals: { host }, cookies, url }) {
	await endSession({ host, cookies, url })
	redirect(303, '/sign-in')
}
