import { navigating, page } from '$app/state'

/**
 * The address of this screen as it will stand when what was last chosen or typed on it has arrived: who is quick changes two
 * things before the first has, and neither may undo the other.
 */
export function addressNow(): URL {
	const next = navigating.to?.url
	return next?.pathname === page.url.pathname ? next : page.url
}
