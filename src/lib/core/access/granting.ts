/** Who may give a role to whom, and take it away. */

export interface Granter {
	readonly person: number
	readonly isSteward: boolean
	/** The roles that this person holds by name and may pass on. */
	readonly mayPassOn: ReadonlySet<number>
}

export type GrantVerdict = { readonly ok: true } | { readonly ok: false; readonly message: string }

const YES: GrantVerdict = { ok: true }

/**
 * Stewards give any role; others what they hold and may pass on. Nobody gives or takes their own: two people know of
 * each right that somebody has.
 */
export function mayGrant(granter: Granter, role: { id: number; name: string }, to: number): GrantVerdict {
	if (granter.person === to)
		return { ok: false, message: 'Nobody changes their own roles. Ask another steward, or who passes the role on.' }
	if (granter.isSteward || granter.mayPassOn.has(role.id)) return YES
	return { ok: false, message: `You may not pass "${role.name}" on. Ask a steward, or somebody who may.` }
}
