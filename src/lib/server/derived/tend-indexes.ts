/** What indexes want beside other work, a step at a time: orders that were asked for, statistics, text. */
import type { Store, WantedOrder } from '../store/store.ts'
import { makeOrderIndex } from './order-index.ts'
import { takeStatistics } from './table-statistics.ts'
import { growTextIndex } from './text-index.ts'

/** Whether there is more to do: at once, or when nothing else presses. */
export type Growth = 'more' | 'later' | 'done'

/** One step of the upkeep that nobody waits for; says whether there is more to do. */
export function tendIndexes(store: Store, { wanted }: { wanted: readonly WantedOrder[] }): Growth {
	if (wanted.some((each) => makeOrderIndex(store, each))) return 'more'
	if (takeStatistics(store)) return 'more'
	return growTextIndex(store)
}
