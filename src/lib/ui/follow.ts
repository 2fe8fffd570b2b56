import { invalidateAll } from '$app/navigation'
import { page } from '$app/state'
import { untrack } from 'svelte'

/** Reads the page again whenever what it shows has changed, or who may see it. Returns what ends it. */
export function followTables(tables: readonly number[]): () => void {
	return onTablesChanged(tables, () => void invalidateAll(), 80)
}

/**
 * Calls back when something of some tables, or who may see them, changed since the page was read; once for several changes
 * within `quietMs`. Returns what ends it.
 */
export function onTablesChanged(tables: readonly number[], work: () => void, quietMs: number): () => void {
	const readAt = untrack(() => page.data['readAt'] as number)
	const source = new EventSource(`/events?tables=${tables.join(',')}&since=${readAt}`)
	let timer: ReturnType<typeof setTimeout> | undefined
	source.addEventListener('changed', () => {
		clearTimeout(timer)
		timer = setTimeout(work, quietMs)
	})
	return () => {
		clearTimeout(timer)
		source.close()
	}
}
