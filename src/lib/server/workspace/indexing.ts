/** Lets indexes of text grow beside everything else: a step at a time, as long as there is more to do. */
export interface Indexing {
	/** Looks whether there is something to do. */
	wake(): void
	/** Ends after the step that is under way. */
	close(): Promise<void>
}

/** @param step takes in some rows, and says whether there are more */
export function startIndexing(step: () => Promise<boolean>): Indexing {
	let running: Promise<void> | undefined
	let woken = false
	let closing = false

	async function run(): Promise<void> {
		while (woken && !closing) {
			woken = false
			while (!closing && (await step()));
		}
	}

	return {
		wake() {
			woken = true
			if (closing) return
			running ??= run()
				// A search does without; the next change tries again.
				.catch((error: unknown) => console.error(error))
				.finally(() => (running = undefined))
		},
		async close() {
			closing = true
			await running
		}
	}
}
