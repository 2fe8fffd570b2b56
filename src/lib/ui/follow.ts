import { invalidateAll } from '$app/navigation'
import { page } from '$app/state'
import { untrack } from 'svelte'

/** Reads the page again whenever what it shows has changed, or who may see it. Returns what ends it. */
export function followTables(tables: readonly number[]): () => void {
	return onTablesChanged(tables, () => void invalidateAll(), 80)
}

/** The tables that changed; null where anything may have. */
export type ChangedTables = readonly number[] | null

/**
 * Calls back when something of some tables, or who may see them, changed since the page was read; once for several changes
 * within `quietMs`. `look`: the token of a Lookout whose draft is followed too. Returns what ends it.
 */
export function onTablesChanged(
	tables: readonly number[],
	work: (changed: ChangedTables) => void,
	quietMs: number,
	look?: string
): () => void {
	const readAt = untrack(() => page.data['readAt'] as number)
	const as = look === undefined ? '' : `&as=${look}`
	const source = new EventSource(`/events?tables=${tables.join(',')}&since=${readAt}${as}`)
	let timer: ReturnType<typeof setTimeout> | undefined
	let changed: ChangedTables = []
	source.addEventListener('changed', ({ data }: MessageEvent<string>) => {
		clearTimeout(timer)
		// The stream says these or "all".
		const said = JSON.parse(data) as readonly number[] | 'all'
		changed = said === 'all' || changed === null ? null : [...new Set([...changed, ...said])]
		timer = setTimeout(() => {
			work(changed)
			changed = []
		}, quietMs)
	})
	return () => {
		clearTimeout(timer)
		source.close()
	}
}
