/** Ids of runs as the outside knows them: sealed like row ids, so that they tell nobody how many others there are. */
import type { Store } from '../store/store.ts'

/** A table number that no table has. */
const RUNS = 2 ** 32 - 1

export function toRunId(store: Store, id: number): string {
	return store.ids.toId(RUNS, id)
}

export function fromRunId(store: Store, id: string): number | undefined {
	return store.ids.fromId(RUNS, id)
}
