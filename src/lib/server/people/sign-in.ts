/** Signing in and out: a password, a code where a second factor was set up, a random token of which the SHA-256 is kept. */
import { AppError } from '$lib/core/app-error.ts'
import type { Host } from '../host.ts'
import { hashToken, newToken } from '../token.ts'
import { takeCode } from './one-time-codes.ts'
import { NO_PASSWORDS } from './password-use.ts'
import { isRight } from './passwords.ts'
import { openThrottle } from './throttle.ts'

export const SESSION_MS = 7 * 24 * 3_600_000

/** Tries at one account from one network. */
const tries = openThrottle(10)
/** Tries at any account from one network: an office mistypes more often than one person, and guesses more seldom than a thief. */
const fromNetwork = openThrottle(60)
/** Whoever got past the first step and still owes a code. */
interface Owing {
	readonly person: number
	readonly until: number
	readonly key: string
	/** By what the first step was taken. */
	readonly through: string
	tries: number
}
const owing = new Map<string, Owing>()
const OWING_MS = 5 * 60_000
const MOST_CODES = 5

export interface SigningIn {
	readonly email: string
	readonly password: string
	/** The network address that asks. */
	readonly from: string
	readonly agent: string
}

/** A session's token, or a ticket with which a code is still to be given. Refuses with one sentence whatever was wrong. */
export async function signIn(
	host: Host,
	{ email, password, from, agent }: SigningIn
): Promise<{ readonly token: string } | { readonly ticket: string }> {
	const now = host.now()
	const key = `to ${email.trim().toLowerCase()} from ${from}`
	if (tries.isSlowed(key, now) || fromNetwork.isSlowed(from, now))
		throw new AppError('busy', 'Too many tries. Wait a quarter of an hour, then try again.')
	const account = await host.read('account', { email })
	if (!(await isRight(password, account?.hash)) || !account) {
		tries.count(key, now)
		fromNetwork.count(from, now)
		await host.write('noteFailedSignIn', { person: account?.person, now })
		throw new AppError('invalid', 'This address and password do not go together.')
	}
	// What a network got wrong stays counted: somebody's own account must not buy further guesses at others'.
	tries.forget(key)
	if (!(await host.read('mayUsePassword', { person: account.person }))) throw new AppError('invalid', NO_PASSWORDS)
	return goOn(host, { person: account.person, through: 'sign-in', from, agent })
}

/** After the first step, by password or provider: a session, or the code that is still owed where one was set up. */
export async function goOn(
	host: Host,
	{ person, through, from, agent }: { person: number; through: string; from: string; agent: string }
): Promise<{ readonly token: string } | { readonly ticket: string }> {
	const factor = await host.read('secondFactor', { person })
	if (!factor?.confirmed) return { token: await beginSession(host, { person, through, agent }) }
	// Wrong codes count beyond one ticket: who got past the first step must not guess on with a new one each time.
	const key = `code of ${person} from ${from}`
	if (tries.isSlowed(key, host.now()))
		throw new AppError('busy', 'Too many wrong codes. Wait a quarter of an hour, then try again.')
	return { ticket: oweCode({ person, key, through }, host.now()) }
}

/** The second step; a ticket is good for a few tries within five minutes. */
export async function giveCode(
	host: Host,
	{ ticket, code, agent }: { ticket: string; code: string; agent: string }
): Promise<string> {
	const owed = owing.get(ticket)
	if (!owed || owed.until <= host.now() || owed.tries >= MOST_CODES) {
		owing.delete(ticket)
		throw new AppError('signed_out', 'That took too long, or too many tries. Begin again with your password.')
	}
	owed.tries++
	if (!(await takeCode(host, owed.person, code))) {
		tries.count(owed.key, host.now())
		await host.write('noteFailedSignIn', { person: owed.person, now: host.now() })
		throw new AppError('invalid', 'This code is not right, or was used before. Wait for the next one.')
	}
	tries.forget(owed.key)
	owing.delete(ticket)
	return beginSession(host, { person: owed.person, through: `${owed.through} with code`, agent })
}

function oweCode(owed: Pick<Owing, 'person' | 'key' | 'through'>, now: number): string {
	for (const [old, { until }] of owing) if (until <= now) owing.delete(old)
	const ticket = newToken()
	owing.set(ticket, { ...owed, until: now + OWING_MS, tries: 0 })
	return ticket
}

export async function beginSession(
	host: Host,
	{ person, through, agent }: { person: number; through: string; agent: string }
): Promise<string> {
	const token = newToken()
	const now = host.now()
	await host.write('addSession', {
		tokenHash: hashToken(token),
		person,
		now,
		expiresAt: now + SESSION_MS,
		through,
		agent
	})
	return token
}
