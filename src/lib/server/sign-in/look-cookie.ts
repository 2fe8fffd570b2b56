/**
 * The cookie by which a device follows a Lookout, without anybody being signed in on it: it opens the addresses of that one
 * look and no others, as the builder who looks, for as long as their own session lasts.
 */
import type { Cookies } from '@sveltejs/kit'
import type { Follower, Phones } from '../people/phones.ts'

export const LOOK_SECONDS = 12 * 3_600

function nameAt(url: URL): string {
	return url.protocol === 'https:' ? '__Host-tin_shed_look' : 'tin_shed_look'
}

export function keepLook(cookies: Cookies, url: URL, value: string): void {
	cookies.set(nameAt(url), value, {
		path: '/',
		httpOnly: true,
		sameSite: 'strict',
		secure: url.protocol === 'https:',
		maxAge: LOOK_SECONDS
	})
}

export function dropLook(cookies: Cookies, url: URL): void {
	cookies.delete(nameAt(url), { path: '/', secure: url.protocol === 'https:' })
}

/** Routes that show a look by the token in their own address, and those that are told it as a parameter. */
const OWN = '/as/[token]'
const TOLD = ['/events', '/files/[column]', '/options/[table]', '/pictures/[sha]']

interface Asked {
	readonly cookies: Cookies
	readonly url: URL
	readonly route: { readonly id: string | null }
	readonly params: Partial<Record<string, string>>
}

/** The look that a request may see by this cookie; undefined for any address but those of that look. */
export function findFollower(
	host: { readonly phones: Phones },
	{ cookies, url, route, params }: Asked
): Follower | undefined {
	const cookie = cookies.get(nameAt(url))
	const follower = cookie === undefined ? undefined : host.phones.find(cookie)
	const id = route.id ?? ''
	const asked =
		id === OWN || id.startsWith(`${OWN}/`)
			? params['token']
			: TOLD.includes(id)
				? url.searchParams.get('as')
				: undefined
	return follower && asked === follower.look ? follower : undefined
}

/** Whether a device has followed one, by what it brings along. */
export function hasFollowed(cookies: Cookies, url: URL): boolean {
	return cookies.get(nameAt(url)) !== undefined
}
