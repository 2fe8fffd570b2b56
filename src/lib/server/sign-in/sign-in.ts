/** Signing in and out: a password, a code where a second factor was set up, a random token of which the SHA-256 is kept. */
import { AppError } from '$lib/core/app-error.ts'
import type { Site } from '../threads/threads.ts'
import { hashToken, newToken } from '../base/token.ts'
import { findKnown } from './known-browser.ts'
import { openLane } from '../base/lane.ts'
import { withCode, type FirstStep, type SignInThrough } from '../history/through.ts'
import { takeCode } from './one-time-codes.ts'
import { NO_PASSWORDS } from '../credentials/password-use.ts'
import { isRight } from './passwords.ts'
import { openThrottle } from '../base/throttle.ts'

export const SESSION_MS = 7 * 24 * 3_600_000

/** Tries at one account from one network. */
const tries = openThrottle(10)
/** Tries at any account from one network: an office mistypes more often than one person, and guesses more seldom than a thief. */
const fromNetwork = openThrottle(60)
/** From there on each waits its turn: whoever mistyped nothing gets in all the same. */
const lane = openLane({ pauseMs: 500, most: 100 })
/** Whoever got past the first step and still owes a code. */
interface Owing {
	readonly person: number
	readonly until: number
	readonly key: string
	/** By what the first step was taken. */
	readonly through: FirstStep
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
	/** By what the browser is known to have signed people in before. */
	readonly browser?: string | undefined
}

/** Whose session has begun, and its token. */
export interface Entered {
	readonly token: string
	readonly person: number
}

const TOO_MANY = 'Too many tries. Wait a quarter of an hour, then try again.'

/** A session's token, or a ticket with which a code is still to be given. Refuses with one sentence whatever was wrong. */
export async function signIn(
	host: Site,
	{ email, password, from, agent, browser }: SigningIn
): Promise<Entered | { readonly ticket: string }> {
	const now = host.now()
	const account = await host.read('account', { email })
	const known = account && findKnown(host.key, browser, account.person)
	const key = known ? `by ${known}` : `to ${email.trim().toLowerCase()} from ${from}`
	if (!tries.take(key, now)) throw new AppError('busy', TOO_MANY)
	const isCounted = known === undefined && fromNetwork.take(from, now)
	if (known === undefined && !isCounted && !(await lane.wait(from))) throw new AppError('busy', TOO_MANY)
	if (!(await isRight(password, account?.hash)) || !account) {
		await host.write('noteFailedSignIn', { person: account?.person, now })
		throw new AppError('invalid', 'This address and password do not go together.')
	}
	// What a network got wrong before stays counted: somebody's own account must not buy further guesses at others'.
	tries.forget(key)
	if (isCounted) fromNetwork.giveBack(from)
	if (!(await host.read('mayUsePassword', { person: account.person }))) throw new AppError('invalid', NO_PASSWORDS)
	return goOn(host, { person: account.person, through: 'sign-in', from, agent })
}

/** After the first step, by password or provider: a session, or the code that is still owed where one was set up. */
export async function goOn(
	host: Site,
	{ person, through, from, agent }: { person: number; through: FirstStep; from: string; agent: string }
): Promise<Entered | { readonly ticket: string }> {
	const factor = await host.read('secondFactor', { person })
	if (!factor?.confirmed) return { token: await beginSession(host, { person, through, agent }), person }
	// Wrong codes count beyond one ticket: who got past the first step must not guess on with a new one each time.
	const key = `code of ${person} from ${from}`
	if (tries.isSlowed(key, host.now()))
		throw new AppError('busy', 'Too many wrong codes. Wait a quarter of an hour, then try again.')
	return { ticket: oweCode({ person, key, through }, host.now()) }
}

/** The second step; a ticket is good for a few tries within five minutes. */
export async function giveCode(
	host: Site,
	{ ticket, code, agent }: { ticket: string; code: string; agent: string }
): Promise<Entered> {
	const owed = owing.get(ticket)
	if (!owed || owed.until <= host.now() || owed.tries >= MOST_CODES) {
		owing.delete(ticket)
		throw new AppError('signed_out', 'That took too long, or too many tries. Begin again with your password.')
	}
	owed.tries++
	if (!tries.take(owed.key, host.now()))
		throw new AppError('busy', 'Too many wrong codes. Wait a quarter of an hour, then try again.')
	const is = await takeCode(host, owed.person, code)
	if (is !== 'right') {
		await host.write('noteFailedSignIn', { person: owed.person, now: host.now() })
		throw new AppError(
			'invalid',
			`This code ${is === 'used' ? 'was used before' : 'is not right'}. Wait for the next one.`
		)
	}
	tries.forget(owed.key)
	owing.delete(ticket)
	const { person } = owed
	return { token: await beginSession(host, { person, through: withCode(owed.through), agent }), person }
}

function oweCode(owed: Pick<Owing, 'person' | 'key' | 'through'>, now: number): string {
	for (const [old, { until }] of owing) if (until <= now) owing.delete(old)
	const ticket = newToken()
	owing.set(ticket, { ...owed, until: now + OWING_MS, tries: 0 })
	return ticket
}

/** Begins a session of seven days and gives its token, of which the hash alone is kept; refused to who is suspended. */
export async function beginSession(
	host: Site,
	{ person, through, agent }: { person: number; through: SignInThrough; agent: string }
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
