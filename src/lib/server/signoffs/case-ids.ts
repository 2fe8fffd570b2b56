/** Ids of sign-off cases as the outside knows them: sealed like row ids, under a table number that no table has. */
import type { Store } from '../store/store.ts'

const CASES = 0

export function toCaseId(store: Store, id: number): string {
	return store.ids.toId(CASES, id)
}

export function fromCaseId(store: Store, id: string): number | undefined {
	return store.ids.fromId(CASES, id)
}

export function caseLink(store: Store, id: number): string {
	return `/waiting/${toCaseId(store, id)}`
}
