import { redirect } from '@sveltejs/kit'
import { AppError } from '$lib/core/app-error.ts'
import { dropBrief, keepBriefly, readBrief } from '$lib/server/web/brief-cookies.ts'
import { comeBack, type CameBack } from '$lib/server/sign-in/outside-sign-in.ts'
import { goOn } from '$lib/server/sign-in/sign-in.ts'
import { agentOf, enter } from '$lib/server/sign-in/session-cookie.ts'

const UNREACHED: ReadonlyMap<string, string> = new Map([
	['busy', 'That was asked often from here. Wait a quarter of an hour, then try again.'],
	['unreachable', 'The provider does not answer just now. Try again in a while, or sign in by another way.']
])

/** Back from a provider: signed in, at an app's door, or told why not. */
export async function load({ locals, url, cookies, request }) {
	const { host } = locals
	const { name: workspace } = await host.read('workspace', undefined)
	const unreached = url.searchParams.has('state') ? undefined : UNREACHED.get(url.searchParams.get('error') ?? '')
	if (unreached) return { workspace, message: unreached }
	const state = readBrief(cookies, 'leaving')
	dropBrief(cookies, url, 'leaving')
	let next: string
	try {
		next = await goInside(await comeBack(host, { url, state }))
	} catch (error) {
		if (error instanceof AppError) return { workspace, message: error.message }
		throw error
	}
	redirect(303, next)

	async function goInside(came: CameBack): Promise<string> {
		if ('vouched' in came) {
			keepBriefly(cookies, url, 'vouched', came.vouched)
			return `/door/${came.door}`
		}
		const entered = await goOn(host, { ...came, from: locals.from, agent: agentOf(request) })
		if ('token' in entered) {
			await enter({ host: locals.host, cookies, url }, entered.token)
			return came.then
		}
		keepBriefly(cookies, url, 'owed', entered.ticket)
		return `/sign-in?then=${encodeURIComponent(came.then)}`
	}
}
