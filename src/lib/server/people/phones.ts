/**
 * Devices on which a builder's Lookout is followed without signing in there: by a code that serves once, within two minutes.
 * What a device gets is the one look that the code was made for, and no more; it ends with the session of the builder at the
 * desk, or when they say so.
 */
import { randomBytes, randomInt } from 'node:crypto'
import type { FollowedLook } from '$lib/core/requests/looks.ts'
import { hashToken, newToken } from '../base/token.ts'

export interface Follower {
	/** The look that it may see, by its token. */
	readonly look: string
	/** Of the builder's session at the desk. */
	readonly sessionHash: string
}

export interface Offered extends Follower {
	readonly looker: number
	/** As whom the app is shown, for the desk to say. */
	readonly name: string
}

export interface Phones {
	offer(offered: Offered): { readonly id: string; readonly code: string; readonly until: number }
	/** What a device is known by from then on; undefined where the code was used, ran out or never was. */
	redeem(code: string, agent: string): { readonly cookie: string; readonly look: string } | undefined
	find(cookie: string): Follower | undefined
	/** Those of one builder: open offers and devices. */
	list(looker: number): FollowedLook[]
	end(id: string, looker: number): void
}

const SERVES_MS = 2 * 60_000
const LASTS_MS = 12 * 3_600_000
const MOST = 200

/** Without those that are read for one another: I and 1, O and 0. */
const SIGNS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789'
const LENGTH = 10

interface Known extends Offered {
	readonly id: string
	/** Until it was used; after that the device's cookie. */
	readonly hash: string
	readonly until: number
	readonly taken: { readonly agent: string; readonly at: number } | null
}

export function openPhones(now: () => number): Phones {
	const known = new Map<string, Known>()

	function drop(isOver: (each: Known) => boolean): void {
		for (const [id, each] of known) if (each.until <= now() || isOver(each)) known.delete(id)
	}

	const findBy = (secret: string, isTaken: boolean): Known | undefined => {
		const hash = hashToken(secret)
		return [...known.values()].find(
			(each) => each.hash === hash && (each.taken !== null) === isTaken && each.until > now()
		)
	}

	return {
		offer(offered) {
			// One open offer for a look is enough: the last one shown at the desk.
			drop((each) => each.taken === null && each.look === offered.look && each.looker === offered.looker)
			if (known.size >= MOST) known.delete(known.keys().next().value ?? '')
			const id = randomBytes(9).toString('base64url')
			const code = Array.from({ length: LENGTH }, () => SIGNS[randomInt(SIGNS.length)]).join('')
			const until = now() + SERVES_MS
			known.set(id, { ...offered, id, hash: hashToken(code), until, taken: null })
			return { id, code, until }
		},
		redeem(code, agent) {
			const found = findBy(readCode(code), false)
			if (!found) return undefined
			const cookie = newToken()
			const taken = { agent: agent.slice(0, 300), at: now() }
			known.set(found.id, { ...found, hash: hashToken(cookie), until: now() + LASTS_MS, taken })
			return { cookie, look: found.look }
		},
		find: (cookie) => findBy(cookie, true),
		list(looker) {
			drop(() => false)
			return [...known.values()]
				.filter((each) => each.looker === looker)
				.map(({ id, look, name, taken, until }) => ({ id, look, name, taken, until }))
		},
		end: (id, looker) => drop((each) => each.id === id && each.looker === looker)
	}
}

/** As it is typed: small letters, blanks and strokes between are no matter. */
function readCode(text: string): string {
	return text.toUpperCase().replace(/[^A-Z0-9]/g, '')
}
