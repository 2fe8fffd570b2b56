/**
 * Ids of what is no row, as the outside knows them: sealed like row ids, so that they tell nobody how many others there are. Each kind
 * has a number that no table has.
 */
import type { Store } from './store.ts'

const KINDS = { case: 0, notice: 2 ** 32 - 3, ask: 2 ** 32 - 2, run: 2 ** 32 - 1 } as const

export function sealId(store: Store, kind: keyof typeof KINDS, id: number): string {
	return store.ids.toId(KINDS[kind], id)
}

/** Undefined where it is no id of that kind. */
export function openId(store: Store, kind: keyof typeof KINDS, sealed: string): number | undefined {
	return store.ids.fromId(KINDS[kind], sealed)
}
