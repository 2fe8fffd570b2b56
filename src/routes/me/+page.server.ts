import type { RequestEvent } from '@sveltejs/kit'
import { hashToken } from '$lib/server/base/token.ts'
import * as account from '$lib/server/sign-in/change-own-account.ts'
import { readSessionToken } from '$lib/server/sign-in/session-cookie.ts'
import { forForm } from '$lib/server/web/answer.ts'
import { getNamed } from '$lib/server/web/signed-in.ts'

export async function load({ locals, cookies, url }) {
	const { person, email, roleNames } = getNamed(locals)
	const tokenHash = hashToken(readSessionToken(cookies, url) ?? '')
	const [sessions, factor, zone, telling] = await Promise.all([
		locals.host.read('sessions', { person, tokenHash, now: locals.now }),
		locals.host.read('secondFactor', { person }),
		locals.host.read('zone', { person }),
		locals.host.read('telling', { person })
	])
	const zones = Intl.supportedValuesOf('timeZone')
	const { pushKey } = locals.host
	return { pushKey, email, roleNames, zone, telling, zones, sessions, hasFactor: factor?.confirmed ?? false }
}

export const actions = {
	password: (event) => change(event, 'password', account.changePassword),
	zone: (event) => change(event, 'zone', account.changeZone),
	telling: (event) => change(event, 'telling', account.changeTelling),
	endSession: (event) => change(event, 'sessions', account.endOneSession),
	endOthers: (event) => change(event, 'sessions', account.endOtherSessions),
	beginFactor: (event) => change(event, 'factor', account.beginFactor),
	confirmFactor: (event) => change(event, 'code', account.confirmFactor),
	dropFactor: (event) => change(event, 'factor', account.dropFactor)
}

/** What comes of it is said in the part of the page that it is about. */
function change<T extends object>(
	{ request, locals, cookies, url }: RequestEvent,
	part: string,
	work: (own: account.OwnAccount, form: FormData) => Promise<T>
) {
	const { host, now } = locals
	const own = { ...getNamed(locals), host, now, tokenHash: hashToken(readSessionToken(cookies, url) ?? '') }
	return forForm({ part }, async () => ({ part, ...(await work(own, await request.formData())) }))
}
