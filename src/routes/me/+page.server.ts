import { fail } from '@sveltejs/kit'
import { AppError } from '$lib/core/app-error.ts'
import { beginSecondFactor, takeCode } from '$lib/server/sign-in/one-time-codes.ts'
import { findWeakness, hashPassword, isRight } from '$lib/server/sign-in/passwords.ts'
import { readSessionToken } from '$lib/server/sign-in/session-cookie.ts'
import { hashToken } from '$lib/server/base/token.ts'
import { openThrottle } from '$lib/server/base/throttle.ts'
import { getNamed } from '$lib/server/web/signed-in.ts'

/** Guessing the password of a session that was left open is slowed like signing in. */
const tries = openThrottle(10)

export async function load({ locals, cookies, url }) {
	const { person, email, roleNames } = getNamed(locals)
	const tokenHash = hashToken(readSessionToken(cookies, url) ?? '')
	const [sessions, factor, zone] = await Promise.all([
		locals.host.read('sessions', { person, tokenHash, now: locals.now }),
		locals.host.read('secondFactor', { person }),
		locals.host.read('zone', { person })
	])
	return {
		email,
		roleNames,
		zone,
		zones: Intl.supportedValuesOf('timeZone'),
		sessions,
		hasFactor: factor?.confirmed ?? false
	}
}

const text = (form: FormData, name: string) => String(form.get(name) ?? '')

export const actions = {
	password: async ({ request, locals, cookies, url }) => {
		const { person, email, name } = getNamed(locals)
		const form = await request.formData()
		if (!(await knowsPassword(locals, text(form, 'old')))) return fail(422, { part: 'password', message: WRONG })
		const weakness = findWeakness(text(form, 'new'), [name, email])
		if (weakness) return fail(422, { part: 'password', message: weakness })
		const hash = await hashPassword(text(form, 'new'))
		const tokenHash = hashToken(readSessionToken(cookies, url) ?? '')
		await locals.host.write('changeOwnPassword', { person, hash, tokenHash, now: locals.now })
		return { part: 'password', message: '', done: 'Your password is changed. Everywhere else you are signed out.' }
	},
	zone: async ({ request, locals }) => {
		const zone = text(await request.formData(), 'zone')
		try {
			await locals.host.write('setZone', { person: getNamed(locals).person, zone, now: locals.now })
		} catch (error) {
			if (error instanceof AppError) return fail(422, { part: 'zone', message: error.message })
			throw error
		}
		return { part: 'zone', message: '', done: 'Today is now counted by that clock.' }
	},
	endSession: async ({ request, locals }) => {
		const id = text(await request.formData(), 'id')
		await locals.host.write('endOwnSession', { person: getNamed(locals).person, id, now: locals.now })
		return { part: 'sessions', message: '', done: 'That session is ended.' }
	},
	endOthers: async ({ locals, cookies, url }) => {
		const tokenHash = hashToken(readSessionToken(cookies, url) ?? '')
		await locals.host.write('endOtherSessions', { person: getNamed(locals).person, tokenHash, now: locals.now })
		return { part: 'sessions', message: '', done: 'Everywhere else you are signed out.' }
	},
	beginFactor: async ({ request, locals }) => {
		const { person, email } = getNamed(locals)
		if (!(await knowsPassword(locals, text(await request.formData(), 'old'))))
			return fail(422, { part: 'factor', message: WRONG })
		const { name } = await locals.host.read('workspace', undefined)
		return {
			part: 'factor',
			message: '',
			...(await beginSecondFactor(locals.host, { person, email, workspace: name }))
		}
	},
	confirmFactor: async ({ request, locals }) => {
		const { person } = getNamed(locals)
		const form = await request.formData()
		const is = await takeCode(locals.host, person, text(form, 'code'))
		if (is !== 'right') {
			const message = `This code ${is === 'used' ? 'was used before' : 'is not right'}. Wait for the next one and try again.`
			return fail(422, { part: 'factor', message, again: true })
		}
		await locals.host.write('confirmSecondFactor', { person, now: locals.now })
		return { part: 'factor', message: '', done: 'From now on signing in asks for a code as well.' }
	},
	dropFactor: async ({ request, locals }) => {
		const { person } = getNamed(locals)
		if (!(await knowsPassword(locals, text(await request.formData(), 'old'))))
			return fail(422, { part: 'factor', message: WRONG })
		await locals.host.write('dropSecondFactor', { person, by: person, now: locals.now })
		return { part: 'factor', message: '', done: 'Signing in asks for your password alone.' }
	}
}

const WRONG = 'This is not your password.'

async function knowsPassword(locals: App.Locals, password: string): Promise<boolean> {
	const { person, email } = getNamed(locals)
	const key = `person ${person}`
	if (!tries.take(key, locals.now)) return false
	const account = await locals.host.read('account', { email })
	const right = await isRight(password, account?.hash)
	if (right) tries.forget(key)
	return right
}
