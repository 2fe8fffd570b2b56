/** Lets indexes grow beside everything else: a step at a time, with a rest after each, as long as there is more to do. */
import { setTimeout } from 'node:timers/promises'
import type { Growth } from '../derived/tend-indexes.ts'
import type { WantedOrder } from '../store/store.ts'

export interface Indexing {
	/** Rows were asked for in these orders, and no index served. */
	want(orders: readonly WantedOrder[]): void
	/** Looks whether there is something to do. */
	wake(): void
	/** Ends after the step that is under way. */
	close(): Promise<void>
}

/** As long as a step takes, so that others have the writer half of the time at least. */
const REST_MS = 6
/** While files come in. */
const LATER_MS = 1_000

/** @param step does some of what there is to do; it is told all orders that were wanted since the start */
export function startIndexing(step: (wanted: readonly WantedOrder[]) => Promise<Growth>): Indexing {
	const wanted = new Map<string, WantedOrder>()
	let running: Promise<void> | undefined
	let woken = false
	const ending = new AbortController()
	const { signal } = ending

	async function run(): Promise<void> {
		while (woken && !signal.aborted) {
			woken = false
			while (!signal.aborted) {
				const growth = await step([...wanted.values()])
				if (growth === 'done') break
				// Ended early where it is closed.
				await setTimeout(growth === 'later' ? LATER_MS : REST_MS, undefined, { signal }).catch(() => undefined)
			}
		}
	}

	function wake(): void {
		woken = true
		if (signal.aborted) return
		running ??= run()
			// A search does without; the next change tries again.
			.catch((error: unknown) => console.error(error))
			.finally(() => (running = undefined))
	}

	return {
		wake,
		want(orders) {
			for (const each of orders) {
				const name = `${each.table} ${each.column}`
				// One that was not made was looked at, and had no place.
				if (!wanted.has(name)) wake()
				wanted.set(name, each)
			}
		},
		async close() {
			ending.abort()
			await running
		}
	}
}
