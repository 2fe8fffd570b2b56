import { error, fail, redirect } from '@sveltejs/kit'
import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { dropBrief, readBrief } from '$lib/server/web/brief-cookies.ts'
import { isRight } from '$lib/server/sign-in/passwords.ts'
import { beginSession } from '$lib/server/sign-in/sign-in.ts'
import { findVouched, forgetVouched } from '$lib/server/sign-in/outside-sign-in.ts'
import { openThrottle } from '$lib/server/base/throttle.ts'
import { agentOf, enter } from '$lib/server/sign-in/session-cookie.ts'

/** Who guesses codes waits; and no network has us write to any number of addresses. */
const guesses = openThrottle(12)
const sent = openThrottle(60)

export async function load({ locals, params, cookies, depends }) {
	depends('app:door')
	const named = locals.user?.visits === undefined ? locals.user : undefined
	const door = await readDoor(locals, Number(params.app), named?.person)
	const { name } = await locals.host.read('workspace', undefined)
	const vouched = named ? undefined : findVouched(locals.host, readBrief(cookies, 'vouched'))
	return {
		door,
		workspace: name,
		isIn: named !== undefined,
		vouched: vouched ? { name: vouched.name, email: vouched.email } : null
	}
}

async function readDoor({ host }: App.Locals, app: number, person: number | undefined) {
	const door = Number.isInteger(app) ? await host.read('door', { app, person }) : null
	if (!door) error(404, 'There is nothing at this address.')
	return door
}

const formSchema = z.object({
	name: z.string().trim().min(1, 'Write your name.').max(120),
	email: z.email('This is no email address.').max(254),
	code: z.string().trim().max(200).default(''),
	answer: z.string().trim().max(2000).default('')
})

export const actions = {
	come: async ({ request, params, locals, cookies, url }) => {
		const { host, now } = locals
		const app = Number(params.app)
		const form = Object.fromEntries(await request.formData())
		const user = locals.user?.visits === undefined ? locals.user : undefined
		const token = readBrief(cookies, 'vouched')
		const vouched = user ? undefined : findVouched(host, token)
		const parsed = (user || vouched ? formSchema.pick({ code: true, answer: true }) : formSchema).safeParse(form)
		if (!parsed.success) return fail(422, { ...form, message: parsed.error.issues[0]?.message ?? '' })
		const key = `door ${locals.from}`
		if (sent.isSlowed(key, now) || !guesses.take(key, now))
			return fail(429, { ...form, message: 'Too many tries. Wait a quarter of an hour, then try again.' })
		try {
			const { code, answer } = parsed.data
			const phrase = code === '' ? null : await host.read('phrase', { app })
			const phraseIsRight = phrase !== null && (await isRight(code, phrase))
			const coming = { app, code, answer, phraseIsRight, now }
			if (vouched) {
				const person = await host.write('arriveVouched', { ...coming, vouched })
				forgetVouched(token)
				dropBrief(cookies, url, 'vouched')
				await enter(
					{ host: locals.host, cookies, url },
					await beginSession(host, { person, through: 'door', agent: agentOf(request) })
				)
			} else if (!user) {
				const { name, email } = parsed.data as z.infer<typeof formSchema>
				// Before it is written, so that asking at once writes no more letters; it counts whatever comes of it.
				if (!sent.take(key, now))
					throw new AppError('busy', 'Too many tries. Wait a quarter of an hour, then try again.')
				await host.write('arrive', { ...coming, name, email: email.toLowerCase() })
				guesses.giveBack(key)
				return { sentTo: email }
			} else {
				const at = await host.write('comeIn', { ...coming, person: user.person })
				if (at.state === 'waiting') {
					guesses.giveBack(key)
					return { waiting: true }
				}
			}
		} catch (thrown) {
			if (!(thrown instanceof AppError)) throw thrown
			return fail(422, { ...form, message: thrown.message })
		}
		guesses.giveBack(key)
		redirect(303, `/app/${app}`)
	},
	visit: async ({ params, locals, cookies, request, url }) => {
		const app = Number(params.app)
		const person = await locals.host.read('visitorOf', { app })
		if (person === null) return fail(403, { message: 'This app is not open to visitors any more.' })
		// Each visit is a session and an entry in the Logbook.
		if (!sent.take(`visit ${locals.from}`, locals.now))
			return fail(429, { message: 'Too many visits from here. Wait a quarter of an hour, then try again.' })
		const token = await beginSession(locals.host, { person, through: 'visit', agent: agentOf(request) })
		await enter({ host: locals.host, cookies, url }, token)
		redirect(303, `/app/${app}`)
	}
}
