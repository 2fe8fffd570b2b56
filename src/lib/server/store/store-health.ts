/** Whether the workspace takes writes: asked by a small one from time to time, since a full disk shows nowhere else until somebody saves. */
import type { Store } from './store.ts'

const NOTE = `INSERT INTO meta (key, value) VALUES ('last write', @now) ON CONFLICT (key) DO UPDATE SET value = excluded.value`

/** A small write that shows whether the disk takes one. */
export function tryWrite(store: Store, { now }: { now: number }): void {
	store.prepare(NOTE).run({ now: String(now) })
}

export interface StoreHealth {
	/** False from the first write that failed, or did not come back, until one works. */
	isWell(): boolean
	close(): void
}

export const EVERY_MS = 10_000

/** Tries a write every so often (ms), until it is closed. */
export function watchHealth(write: () => Promise<unknown>, everyMs = EVERY_MS): StoreHealth {
	let isWell = true
	let isUnderWay = false
	const timer = setInterval(() => {
		// The last one has not come back: the writer hangs, or is at something very long.
		if (isUnderWay) {
			isWell = false
			return
		}
		isUnderWay = true
		void write()
			.then(
				() => (isWell = true),
				() => (isWell = false)
			)
			.finally(() => (isUnderWay = false))
	}, everyMs)
	timer.unref()
	return { isWell: () => isWell, close: () => clearInterval(timer) }
}
