import { textKey } from './key.ts'

/** The candidate that a mistyped name most likely meant, or undefined when none is near enough. */
export function findNearest(name: string, candidates: readonly string[]): string | undefined {
	const wanted = textKey(name)
	const limit = Math.max(1, Math.floor(wanted.length / 3))
	let best: string | undefined
	let bestDistance = limit + 1
	for (const candidate of candidates) {
		const distance = editDistance(wanted, textKey(candidate))
		if (distance < bestDistance) {
			best = candidate
			bestDistance = distance
		}
	}
	return best
}

/** Optimal string alignment distance: insertions, removals, replacements and swaps of neighbours. */
export function editDistance(a: string, b: string): number {
	let before: number[] = []
	let last = Array.from({ length: b.length + 1 }, (_, j) => j)
	for (let i = 1; i <= a.length; i++) {
		const row = [i]
		for (let j = 1; j <= b.length; j++) {
			const same = a[i - 1] === b[j - 1]
			let cost = Math.min((last[j] ?? 0) + 1, (row[j - 1] ?? 0) + 1, (last[j - 1] ?? 0) + (same ? 0 : 1))
			const swapped = i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]
			if (swapped) cost = Math.min(cost, (before[j - 2] ?? 0) + 1)
			row.push(cost)
		}
		before = last
		last = row
	}
	return last[b.length] ?? 0
}
