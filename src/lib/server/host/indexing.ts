/** Lets indexes grow beside everything else: a step at a time, with a rest after each, as long as there is more to do. */
import { setTimeout } from 'node:timers/promises'
import type { Growth } from '../derived/tend-indexes.ts'

export interface Indexing {
	/** Looks whether there is something to do. */
	wake(): void
	/** Ends after the step that is under way. */
	close(): Promise<void>
}

/** As long as a step takes, so that others have the writer half of the time at least. */
const REST_MS = 6
/** While files come in. */
const LATER_MS = 1_000

/** @param step does some of what there is to do */
export function startIndexing(step: () => Promise<Growth>): Indexing {
	let running: Promise<void> | undefined
	let woken = false
	const ending = new AbortController()
	const { signal } = ending

	async function run(): Promise<void> {
		while (woken && !signal.aborted) {
			woken = false
			while (!signal.aborted) {
				const growth = await step()
				if (growth === 'done') break
				// Ended early where it is closed.
				await setTimeout(growth === 'later' ? LATER_MS : REST_MS, undefined, { signal }).catch(() => undefined)
			}
		}
	}

	return {
		wake() {
			woken = true
			if (signal.aborted) return
			running ??= run()
				// A search does without; the next change tries again.
				.catch((error: unknown) => console.error(error))
				.finally(() => (running = undefined))
		},
		async close() {
			ending.abort()
			await running
		}
	}
}
