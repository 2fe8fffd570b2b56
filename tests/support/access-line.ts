import type { LineEntry } from '$lib/core/workspace/document.ts'

/** A line of access: it lets every row be seen whole, unless it says otherwise. */
export function accessLine(parts: Pick<LineEntry, 'id' | 'table' | 'role'> & Partial<LineEntry>): LineEntry {
	return { verbs: ['see'], where: '', columns: { kind: 'all' }, ...parts }
}
