/**
 * A lane in which tries wait their turn, one after another with a pause between: from a network that got very much wrong
 * nobody is refused for it, but guessing there is slow.
 */
export interface Lane {
	/** Resolves to true when it is one's turn; to false at once where too many wait already. */
	wait(key: string): Promise<boolean>
}

/** One at a time by key, each after a pause; more than `most` who wait are sent away. */
export function openLane({ pauseMs, most }: { pauseMs: number; most: number }): Lane {
	const lanes = new Map<string, { waiting: number; last: Promise<void> }>()
	return {
		async wait(key) {
			const lane = lanes.get(key) ?? { waiting: 0, last: Promise.resolve() }
			if (lane.waiting >= most) return false
			lanes.set(key, lane)
			lane.waiting++
			const turn = lane.last.then(() => new Promise<void>((done) => setTimeout(done, pauseMs)))
			lane.last = turn
			await turn
			lane.waiting--
			if (lane.waiting === 0) lanes.delete(key)
			return true
		}
	}
}
