import type { Cookies } from '@sveltejs/kit'
import { SESSION_COOKIE, SESSION_MS } from './people/sign-in.ts'

export function setSessionCookie(cookies: Cookies, token: string, url: URL): void {
	cookies.set(SESSION_COOKIE, token, {
		path: '/',
		httpOnly: true,
		// Lax, so that a link in a message finds the reader signed in; every change is refused from elsewhere besides.
		sameSite: 'lax',
		secure: url.protocol === 'https:',
		maxAge: SESSION_MS / 1000
	})
}

/** What a browser calls itself, so that its sessions can be told apart. */
export function agentOf(request: Request): string {
	return request.headers.get('user-agent') ?? ''
}
