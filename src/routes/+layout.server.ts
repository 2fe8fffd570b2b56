import { createHmac } from 'node:crypto'
import { readSessionToken } from '$lib/server/sign-in/session-cookie.ts'

/** What every signed-in page's header shows. */
export async function load({ locals, depends, cookies, url }) {
	depends('app:waiting')
	const { host } = locals
	const user = locals.isFollowing ? undefined : locals.user
	const [{ name, writing }, head] = await Promise.all([
		host.read('workspace', undefined),
		user
			? host.read('waiting', { actor: { person: user.person }, now: locals.now })
			: Promise.resolve({ waiting: 0, unread: 0 })
	])
	const shown = user && {
		name: user.name,
		roleNames: user.roleNames,
		isBuilder: user.isBuilder,
		isSteward: user.isSteward,
		isVisitor: user.visits !== undefined
	}
	return { workspaceName: name, writing, user: shown, ...head, readAt: locals.now, draftsOf: user ? draftsOf() : '' }

	/** Under what name this browser keeps drafts: each person's own, and each visit's, since visitors are nobody in particular. */
	function draftsOf(): string {
		const whose = user?.visits === undefined ? `person ${user?.person}` : `visit ${readSessionToken(cookies, url)}`
		return createHmac('sha256', host.key).update(`drafts of ${whose}`).digest('base64url').slice(0, 16)
	}
}
