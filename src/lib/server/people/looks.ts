/**
 * Who looks as whom in the Lookout. The token is bound here to the builder who asked for it, so it is of no use to
 * anybody else, and it ends by itself.
 */
import { randomBytes } from 'node:crypto'

export interface Look {
	readonly looker: number
	readonly person: number
	readonly app: number
}

export interface Looks {
	begin(look: Look): string
	/** The look behind a token, if this person began it and it has not ended. */
	find(token: string, looker: number): Look | undefined
}

const LASTS_MS = 12 * 3_600_000
const MOST = 500

/** Tokens by which a builder's frames show an app as somebody else sees it; they end by themselves. */
export function openLooks(now: () => number): Looks {
	const looks = new Map<string, Look & { until: number }>()
	return {
		begin(look) {
			for (const [token, each] of looks) {
				const same = each.looker === look.looker && each.person === look.person && each.app === look.app
				if (same && each.until > now()) return token
				if (each.until <= now() || looks.size > MOST) looks.delete(token)
			}
			const token = randomBytes(18).toString('base64url')
			looks.set(token, { ...look, until: now() + LASTS_MS })
			return token
		},
		find(token, looker) {
			const look = looks.get(token)
			return look && look.looker === looker && look.until > now() ? look : undefined
		}
	}
}
