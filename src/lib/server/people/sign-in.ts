/** Signing in and out: argon2id hashes, random tokens of which only the SHA-256 is kept, and slowing down of guessing. */
import { hash, verify } from '@node-rs/argon2'
import { createHash, randomBytes } from 'node:crypto'
import { AppError } from '$lib/core/app-error.ts'
import type { Host } from '../host.ts'

export const SESSION_COOKIE = 'tin_shed_session'
export const SESSION_MS = 7 * 24 * 3_600_000

/** OWASP's least for argon2id: 19 MiB, two passes, one lane. */
const ARGON2 = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

/** A hash of no password, so that an unknown address takes as long as a wrong password. */
const NOBODY = hash(randomBytes(16).toString('hex'), ARGON2)

const WINDOW_MS = 15 * 60_000
const MOST_TRIES = 10

const tries = new Map<string, { count: number; until: number }>()

export function hashPassword(password: string): Promise<string> {
	return hash(password, ARGON2)
}

export interface SigningIn {
	readonly email: string
	readonly password: string
	/** The network address that asks. */
	readonly from: string
}

/** The token of a new session. Refuses with one sentence whatever was wrong. */
export async function signIn(host: Host, { email, password, from }: SigningIn): Promise<string> {
	const now = host.now()
	const keys = [`from ${from}`, `to ${email.trim().toLowerCase()} from ${from}`]
	if (keys.some((key) => isSlowed(key, now))) {
		throw new AppError('busy', 'Too many tries. Wait a quarter of an hour, then try again.')
	}
	const account = await host.read('account', { email })
	const right = await verify(account?.hash ?? (await NOBODY), password, ARGON2).catch(() => false)
	if (!account || !right) {
		for (const key of keys) countTry(key, now)
		throw new AppError('invalid', 'This address and password do not go together.')
	}
	for (const key of keys) tries.delete(key)
	return beginSession(host, account.person, 'sign-in')
}

export async function beginSession(host: Host, person: number, through: string): Promise<string> {
	const token = randomBytes(32).toString('base64url')
	const now = host.now()
	await host.write('addSession', { tokenHash: hashToken(token), person, now, expiresAt: now + SESSION_MS, through })
	return token
}

export function hashToken(token: string): string {
	return createHash('sha256').update(token).digest('hex')
}

function isSlowed(key: string, now: number): boolean {
	const known = tries.get(key)
	return known !== undefined && known.until > now && known.count >= MOST_TRIES
}

function countTry(key: string, now: number): void {
	if (tries.size > 10_000) for (const [old, { until }] of tries) if (until <= now) tries.delete(old)
	const known = tries.get(key)
	const fresh = !known || known.until <= now
	tries.set(key, { count: fresh ? 1 : known.count + 1, until: fresh ? now + WINDOW_MS : known.until })
}
