/** What of a table is known of a past day. */
import { holdsFile } from '../capture/attachment.ts'
import { readsOwnRowOnly, someNode } from '../formula/syntax/walk.ts'
import type { Expr } from '../model/formula.ts'
import type { Column } from '../model/table.ts'
import { isStored } from '../table/storage.ts'

/** What people typed, and what is worked out of its own row alone: not totals over others, nor files. */
export function isKept(column: Column): boolean {
	if (!column.computed) return isStored(column) && !holdsFile(column)
	const { expr, vouched } = column.computed
	return !vouched && readsOwnRowOnly(expr) && !someNode(expr, ({ kind }) => kind === 'me')
}

/** The columns of its own row that a condition reads, and of which nothing is known of a past day. */
export function lostIn(condition: Expr): readonly Column[] {
	const lost = new Set<Column>()
	someNode(condition, (node) => {
		if (node.kind === 'field' && node.of.kind === 'this' && node.of.level === 0 && !isKept(node.column))
			lost.add(node.column)
		return false
	})
	return [...lost]
}
