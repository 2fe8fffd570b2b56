/** Slows guessing down: after so many tries a key waits. Keys hold the asking address, so that nobody locks another out. */
const WINDOW_MS = 15 * 60_000

export interface Throttle {
	isSlowed(key: string, now: number): boolean
	count(key: string, now: number): void
	forget(key: string): void
}

export function openThrottle(most: number): Throttle {
	const tries = new Map<string, { count: number; until: number }>()
	return {
		isSlowed(key, now) {
			const known = tries.get(key)
			return known !== undefined && known.until > now && known.count >= most
		},
		count(key, now) {
			if (tries.size > 10_000) for (const [old, { until }] of tries) if (until <= now) tries.delete(old)
			const known = tries.get(key)
			const fresh = !known || known.until <= now
			tries.set(key, { count: fresh ? 1 : known.count + 1, until: fresh ? now + WINDOW_MS : known.until })
		},
		forget: (key) => void tries.delete(key)
	}
}
