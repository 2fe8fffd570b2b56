/** A seeded source of chance (mulberry32), so that every generated failure can be replayed from its printed seed. */
export interface Random {
	/** From 0 up to, but without, 1. */
	next(): number
	/** A whole number from 0 up to, but without, `bound`. */
	below(bound: number): number
	pick<T>(list: readonly T[]): T
	chance(share: number): boolean
}

export function randomFrom(seed: number): Random {
	let state = seed >>> 0
	const next = (): number => {
		state = (state + 0x6d2b79f5) >>> 0
		let t = state
		t = Math.imul(t ^ (t >>> 15), t | 1)
		t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
		return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
	}
	const below = (bound: number): number => Math.floor(next() * bound)
	return {
		next,
		below,
		chance: (share) => next() < share,
		pick: (list) => {
			const picked = list[below(list.length)]
			if (picked === undefined) throw new Error('Expected something to pick from, got an empty list')
			return picked
		}
	}
}
