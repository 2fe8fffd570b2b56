import type { LineEntry } from '$lib/core/workspace/document.ts'

/** A line that lets a role see rows of a table, without some columns. */
export function seeLine(table: number) {
	return (id: string, role: number, where: string, except: number[] = []): LineEntry => ({
		id,
		table,
		role,
		verbs: ['see'],
		where,
		columns: except.length > 0 ? { kind: 'except', columns: except } : { kind: 'all' }
	})
}
