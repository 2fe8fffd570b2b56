/** Ids of asks as the outside knows them: sealed like row ids, so that they tell nobody how many others there are. */
import type { Store } from '../store/store.ts'

/** A table number that no table has. */
const ASKS = 2 ** 32 - 2

export function toAskId(store: Store, id: number): string {
	return store.ids.toId(ASKS, id)
}

export function fromAskId(store: Store, id: string): number | undefined {
	return store.ids.fromId(ASKS, id)
}

export function askLink(store: Store, id: number): string {
	return `/waiting/ask/${toAskId(store, id)}`
}
