/** How pages look on one device: light or dark, with more contrast; as its reader chose there, else as the device wishes. */
import type { Cookies } from '@sveltejs/kit'
import { LOOK_COOKIE, readLook } from '$lib/core/requests/look-of-pages.ts'

/** Attributes of the page, so that nothing flashes before scripts are there. */
export function lookOf(cookies: Cookies): string {
	const { theme, contrast } = readLook(cookies.get(LOOK_COOKIE))
	return [theme && `data-theme="${theme}"`, contrast && 'data-contrast="more"'].filter(Boolean).join(' ')
}
