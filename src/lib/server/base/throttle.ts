/**
 * Slows guessing down: after so many tries a key waits. Keys hold the asking address, so that nobody locks another out. A
 * try is counted before it is looked at, so that asking many times at once gains nothing; one that was right is given back.
 */
const WINDOW_MS = 15 * 60_000

export interface Throttle {
	/** Counts a try; false where it was one too many, which is not counted. `now`: epoch ms. */
	take(key: string, now: number): boolean
	/** A try that was taken counts no more. */
	giveBack(key: string): void
	/** All that were taken count no more. */
	forget(key: string): void
	isSlowed(key: string, now: number): boolean
}

/** Lets `most` tries of a key through in a quarter of an hour; kept in this process alone. */
export function openThrottle(most: number): Throttle {
	const tries = new Map<string, { count: number; until: number }>()
	const countOf = (key: string, now: number): number => {
		const known = tries.get(key)
		return known && known.until > now ? known.count : 0
	}
	return {
		take(key, now) {
			if (tries.size > 10_000) for (const [old, { until }] of tries) if (until <= now) tries.delete(old)
			const count = countOf(key, now)
			if (count >= most) return false
			tries.set(key, { count: count + 1, until: count === 0 ? now + WINDOW_MS : (tries.get(key)?.until ?? now) })
			return true
		},
		giveBack(key) {
			const known = tries.get(key)
			if (known) tries.set(key, { ...known, count: Math.max(0, known.count - 1) })
		},
		forget: (key) => void tries.delete(key),
		isSlowed: (key, now) => countOf(key, now) >= most
	}
}
