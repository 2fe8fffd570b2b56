/** The cookie by which a browser is signed in. Over HTTPS its name binds it to this host and to secure connections. */
import type { Cookies } from '@sveltejs/kit'
import type { Site } from '../threads/threads.ts'
import { addKnown } from './known-browser.ts'
import { SESSION_MS } from './sign-in.ts'
import { hashToken } from '../base/token.ts'

/** The `__Host-` prefix is held to by browsers: Secure, for the whole host, set by the host itself (RFC 6265bis). */
function nameAt(url: URL): string {
	return url.protocol === 'https:' ? '__Host-tin_shed_session' : 'tin_shed_session'
}

/** The token of the session that a browser is signed in by, if it is. */
export function readSessionToken(cookies: Cookies, url: URL): string | undefined {
	return cookies.get(nameAt(url))
}

/** Signs a browser in; the session that it had before ends. */
export async function enter(
	{ host, cookies, url }: { host: Site; cookies: Cookies; url: URL },
	token: string
): Promise<void> {
	await endSession({ host, cookies, url })
	cookies.set(nameAt(url), token, {
		path: '/',
		httpOnly: true,
		// Lax, so that a link in a message finds the reader signed in; every change is refused from elsewhere besides.
		sameSite: 'lax',
		secure: url.protocol === 'https:',
		maxAge: SESSION_MS / 1000
	})
}

/** Ends the session of a browser, here and in its cookie. */
export async function endSession({ host, cookies, url }: { host: Site; cookies: Cookies; url: URL }): Promise<void> {
	const token = readSessionToken(cookies, url)
	if (token) await host.write('endSession', { tokenHash: hashToken(token), now: host.now() })
	cookies.delete(nameAt(url), { path: '/', secure: url.protocol === 'https:' })
}

const KNOWN = 'tin_shed_known'
const KNOWN_SECONDS = 180 * 86_400

/** By what a browser is known to have signed people in before (`sign-in/known-browser.ts`). */
export function readKnown(cookies: Cookies): string | undefined {
	return cookies.get(KNOWN)
}

/**
 * Notes that this browser has signed somebody in before, which keeps its lane while passwords are guessed from
 * elsewhere.
 */
export function keepKnown({ host, cookies, url }: { host: Site; cookies: Cookies; url: URL }, person: number): void {
	cookies.set(KNOWN, addKnown(host.key, readKnown(cookies), person), {
		path: '/sign-in',
		httpOnly: true,
		sameSite: 'strict',
		secure: url.protocol === 'https:',
		maxAge: KNOWN_SECONDS
	})
}

/** What a browser calls itself, so that its sessions can be told apart. */
export function agentOf(request: Request): string {
	return request.headers.get('user-agent') ?? ''
}
