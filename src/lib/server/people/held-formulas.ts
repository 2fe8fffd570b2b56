/**
 * What a builder writes may read only what they hold. A line of access, the start of a routine and a sign-off are judged
 * on the data as it is; without this, their outcome would tell a builder what a table that others keep says.
 */
import { AppError } from '$lib/core/app-error.ts'
import { isAlways, type Rights } from '$lib/core/access/rights.ts'
import type { Expr } from '$lib/core/formula/types.ts'
import { someNode } from '$lib/core/formula/walk.ts'
import { getColumn, getTable, type Column, type Table } from '$lib/core/table/types.ts'
import { standingOf, type Actor } from './rights-of-actor.ts'
import type { Store } from '../store.ts'

/** The first column that a formula reads and this person does not see on every row; undefined if there is none. */
export function findUnheld(
	store: Store,
	expr: Expr,
	{ actor, now }: { actor: Actor; now: number }
): string | undefined {
	const { rights } = standingOf(store, actor, now)
	const { catalogue } = store.workspace()
	let unheld: string | undefined
	someNode(expr, (node) => {
		if (node.kind === 'field' && !isHeld(rights, actor, node.table, node.column))
			unheld = `${node.table.name}, ${node.column.name}`
		if (node.kind === 'field' && node.column.computed && unheld === undefined) {
			unheld = findUnheld(store, node.column.computed.expr, { actor, now })
		}
		if (node.kind === 'children') {
			const child = getTable(catalogue, node.reverse.table)
			const column = getColumn(child, node.reverse.column)
			if (!isHeld(rights, actor, child, column)) unheld = `${child.name}, ${column.name}`
		}
		return unheld !== undefined
	})
	return unheld
}

export function refuseUnheld(store: Store, expr: Expr, by: { actor: Actor; now: number; what: string }): void {
	const unheld = findUnheld(store, expr, by)
	if (unheld === undefined) return
	throw new AppError(
		'forbidden',
		`${by.what} reads "${unheld}", of which you do not see every row. Ask whoever keeps that table.`
	)
}

function isHeld(rights: Rights, actor: Actor, table: Table, column: Column): boolean {
	if (table.keepers.includes(actor.person)) return true
	return isAlways(rights.rows(table)) && isAlways(rights.cell(table, column))
}
