/** Who is told that something changed, and when it last did: for pages that follow what they show. */
import type { ChangeNotice } from '../threads/protocol.ts'
import type { Threads } from '../threads/threads.ts'

export interface ChangeNotices extends Pick<Threads, 'onChange' | 'hasChangedSince'> {
	/** After a commit. */
	tell(notice: ChangeNotice): void
}

/** @param now epoch ms */
export function openChangeNotices(now: () => number): ChangeNotices {
	const listeners = new Set<(notice: ChangeNotice) => void>()
	/** When each table, and who may see what, last changed. */
	const changedAt = new Map<number | 'access', number>()
	return {
		tell(notice) {
			for (const table of notice.tables) changedAt.set(table, now())
			if (notice.access) changedAt.set('access', now())
			for (const listener of listeners) listener(notice)
		},
		onChange(listener) {
			listeners.add(listener)
			return () => listeners.delete(listener)
		},
		hasChangedSince: (since, tables) =>
			[...changedAt].some(([what, at]) => at >= since && (what === 'access' || tables.has(what)))
	}
}
