import { invalidateAll } from '$app/navigation'
import { page } from '$app/state'
import { untrack } from 'svelte'

/** Where a page hears that something of some tables, or who may see them, changed since the page was read. */
export function eventsOf(tables: readonly number[]): EventSource {
	const readAt = untrack(() => page.data['readAt'] as number)
	return new EventSource(`/events?tables=${tables.join(',')}&since=${readAt}`)
}

/**
 * Reads the page again whenever what it shows has changed, or who may see it. Returns what ends it.
 * Several changes close together are read once.
 */
export function followTables(tables: readonly number[]): () => void {
	const source = eventsOf(tables)
	let timer: ReturnType<typeof setTimeout> | undefined
	source.addEventListener('changed', () => {
		clearTimeout(timer)
		timer = setTimeout(() => void invalidateAll(), 80)
	})
	return () => {
		clearTimeout(timer)
		source.close()
	}
}
