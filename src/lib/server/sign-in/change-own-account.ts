/**
 * What somebody changes of their own account, from a form on its page. Where a session that was left open must not be enough,
 * the password is asked for. Each gives what to say; a refusal is an `AppError` in words for the page.
 */
import { AppError } from '$lib/core/app-error.ts'
import { MAIL_WAYS } from '$lib/core/requests/notices.ts'
import { openThrottle } from '../base/throttle.ts'
import type { Site } from '../threads/threads.ts'
import { beginSecondFactor, takeCode } from './one-time-codes.ts'
import { findWeakness, hashPassword, isRight } from './passwords.ts'

/** Whose account, and the session from which it is changed. */
export interface OwnAccount {
	readonly host: Site
	readonly person: number
	readonly email: string
	readonly name: string
	readonly tokenHash: string
	/** Epoch ms. */
	readonly now: number
}

export interface Changed {
	readonly done: string
}

/** Guessing the password of a session that was left open is slowed like signing in. */
const tries = openThrottle(10)

const text = (form: FormData, name: string): string => String(form.get(name) ?? '')

export async function changePassword(own: OwnAccount, form: FormData): Promise<Changed> {
	await askPassword(own, form)
	const { host, person, tokenHash, now } = own
	const password = text(form, 'new')
	const weakness = findWeakness(password, [own.name, own.email])
	if (weakness) throw new AppError('invalid', weakness)
	await host.write('changeOwnPassword', { person, hash: await hashPassword(password), tokenHash, now })
	return { done: 'Your password is changed. Everywhere else you are signed out.' }
}

export async function changeZone({ host, person, now }: OwnAccount, form: FormData): Promise<Changed> {
	await host.write('setZone', { person, zone: text(form, 'zone'), now })
	return { done: 'Today is now counted by that clock.' }
}

/** How they are told by mail. */
export async function changeTelling({ host, person, now }: OwnAccount, form: FormData): Promise<Changed> {
	const mail = MAIL_WAYS.find((way) => way === text(form, 'mail')) ?? 'at once'
	const [quietFrom, quietUntil] = [text(form, 'quietFrom'), text(form, 'quietUntil')]
	await host.write('setTelling', { person, mail, quietFrom, quietUntil, now })
	return { done: 'From now on you are told so. What you are told stands under Notices anyhow.' }
}

export async function endOneSession({ host, person, now }: OwnAccount, form: FormData): Promise<Changed> {
	await host.write('endOwnSession', { person, id: text(form, 'id'), now })
	return { done: 'That session is ended.' }
}

export async function endOtherSessions({ host, person, tokenHash, now }: OwnAccount): Promise<Changed> {
	await host.write('endOtherSessions', { person, tokenHash, now })
	return { done: 'Everywhere else you are signed out.' }
}

/** The secret that an authenticator is to read; in force only once a code of it was given. */
export async function beginFactor(own: OwnAccount, form: FormData): Promise<{ secret: string; picture: string }> {
	await askPassword(own, form)
	const { host, person, email } = own
	const { name: workspace } = await host.read('workspace', undefined)
	return beginSecondFactor(host, { person, email, workspace })
}

export async function confirmFactor({ host, person, now }: OwnAccount, form: FormData): Promise<Changed> {
	const is = await takeCode(host, person, text(form, 'code'))
	if (is !== 'right') {
		const wrong = is === 'used' ? 'was used before' : 'is not right'
		throw new AppError('invalid', `This code ${wrong}. Wait for the next one and try again.`)
	}
	await host.write('confirmSecondFactor', { person, now })
	return { done: 'From now on signing in asks for a code as well.' }
}

export async function dropFactor(own: OwnAccount, form: FormData): Promise<Changed> {
	await askPassword(own, form)
	const { host, person, now } = own
	await host.write('dropSecondFactor', { person, by: person, now })
	return { done: 'Signing in asks for your password alone.' }
}

/** Refuses unless the form holds the account's password; too many tries are refused like a wrong one. */
async function askPassword({ host, person, email, now }: OwnAccount, form: FormData): Promise<void> {
	const key = `person ${person}`
	const isTaken = tries.take(key, now)
	const account = isTaken ? await host.read('account', { email }) : undefined
	if (!account || !(await isRight(text(form, 'old'), account.hash)))
		throw new AppError('invalid', 'This is not your password.')
	tries.forget(key)
}
