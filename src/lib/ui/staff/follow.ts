import { invalidateAll } from '$app/navigation'

/**
 * Reads the page again whenever what it shows has changed, or who may see it. Returns what ends it.
 * Several changes close together are read once.
 */
export function followTables(tables: readonly number[]): () => void {
	const source = new EventSource(`/events?tables=${tables.join(',')}`)
	let timer: ReturnType<typeof setTimeout> | undefined
	source.addEventListener('turned', () => {
		clearTimeout(timer)
		timer = setTimeout(() => void invalidateAll(), 80)
	})
	return () => {
		clearTimeout(timer)
		source.close()
	}
}
