/** Medians of two ways that take turns, also in which goes first, so that neither has the warmer cache. In ms. */
export function paired(ours: () => unknown, byHand: () => unknown, runs: number): { ours: number; byHand: number } {
	const a: number[] = []
	const b: number[] = []
	for (let i = 0; i < runs; i++) {
		if (i % 2 === 1) b.push(time(byHand))
		a.push(time(ours))
		if (i % 2 === 0) b.push(time(byHand))
	}
	return { ours: median(a), byHand: median(b) }
}

export function time(work: () => unknown): number {
	const started = performance.now()
	work()
	return performance.now() - started
}

export function median(values: readonly number[]): number {
	const sorted = [...values].sort((x, y) => x - y)
	return sorted[Math.floor(sorted.length / 2)] ?? 0
}
