/** What a browser holds for a few minutes while somebody comes in: where they left for, what they still owe, who vouched. */
import type { Cookies } from '@sveltejs/kit'

export type BriefCookie = 'leaving' | 'owed' | 'vouched'

export const BRIEF_SECONDS = 600

/** Each goes only to the pages that need it. */
const PATHS: Readonly<Record<BriefCookie, string>> = { leaving: '/sign-in/back', owed: '/sign-in', vouched: '/door' }

/** For this browser alone; it goes along when a provider sends its reader back. */
export function keepBriefly(cookies: Cookies, url: URL, what: BriefCookie, value: string): void {
	cookies.set(nameOf(what), value, {
		path: PATHS[what],
		httpOnly: true,
		// Lax: it must come along when a provider sends its reader back.
		sameSite: 'lax',
		secure: url.protocol === 'https:',
		maxAge: BRIEF_SECONDS
	})
}

export function readBrief(cookies: Cookies, what: BriefCookie): string {
	return cookies.get(nameOf(what)) ?? ''
}

export function dropBrief(cookies: Cookies, url: URL, what: BriefCookie): void {
	cookies.delete(nameOf(what), { path: PATHS[what], secure: url.protocol === 'https:' })
}

function nameOf(what: BriefCookie): string {
	return `tin_shed_${what}`
}
