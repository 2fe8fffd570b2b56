import { AppError } from '$lib/core/app-error.ts'
import type { Store } from '../store/store.ts'

/**
 * Does something with each of them and goes on past those that are refused, of which nothing stays; told by their places.
 * All of them together at first, and each by itself only where one is refused: a savepoint for each would double the cost.
 */
export function refusedOf<T>(store: Store, items: readonly T[], act: (item: T) => void): ReadonlyMap<number, AppError> {
	const together = refusal(store, () => items.forEach(act))
	if (!together) return new Map()
	return new Map(
		items.flatMap((item, i) => {
			const refused = refusal(store, () => act(item))
			return refused ? [[i, refused] as const] : []
		})
	)
}

function refusal(store: Store, work: () => void): AppError | undefined {
	try {
		store.db.transaction(() => store.steadily(work))()
	} catch (error) {
		if (error instanceof AppError) return error
		throw error
	}
	return undefined
}
