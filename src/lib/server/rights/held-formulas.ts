/**
 * What a builder writes may read only what they hold. A line of access, a routine and a sign-off are judged on the data as
 * it is, or as somebody else sees it; without this, their outcome would tell a builder what a table that others keep says.
 *
 * `me.Harbour` is a cell of People, of whoever looks: it is held by who sees that column of everybody, or where a steward
 * opened it to builders (`open-as-me.ts`).
 */
import { AppError } from '$lib/core/app-error.ts'
import { isAlways } from '$lib/core/formula/syntax/constant.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import { someNode } from '$lib/core/formula/syntax/walk.ts'
import { getColumn, getTable, type Column, type Table } from '$lib/core/model/table.ts'
import { standingOf, type Actor } from './rights-of-actor.ts'
import type { Store } from '../store/store.ts'

/** The first column that a formula reads and this person does not see on every row; undefined if there is none. */
export function findUnheld(
	store: Store,
	expr: Expr,
	{ actor, now }: { actor: Actor; now: number }
): string | undefined {
	return findFirstUnheld(store, expr, standingOf(store, actor, now).rights)
}

/** The same of what it reads of whoever looks alone: for what is judged within the builder's own sight anyhow. */
export function findUnheldOfMe(
	store: Store,
	expr: Expr,
	{ actor, now }: { actor: Actor; now: number }
): string | undefined {
	const { rights } = standingOf(store, actor, now)
	let unheld: string | undefined
	const visit = (tree: Expr): boolean =>
		someNode(tree, (node) => {
			if (node.kind === 'me' && node.column) unheld = findFirstUnheld(store, node, rights)
			else if (node.kind === 'field' && node.column.computed) visit(node.column.computed.expr)
			return unheld !== undefined
		})
	visit(expr)
	return unheld
}

function findFirstUnheld(store: Store, expr: Expr, rights: Rights): string | undefined {
	const { catalogue } = store.workspace()
	let unheld: string | undefined
	someNode(expr, (node) => {
		const column = node.kind === 'field' || node.kind === 'me' ? node.column : undefined
		if (column && (node.kind === 'field' || node.kind === 'me') && !(node.kind === 'me' && column.openAsMe)) {
			if (!isHeld(rights, node.table, column)) unheld = `${node.table.name}, ${column.name}`
			else if (column.computed) unheld = findFirstUnheld(store, column.computed.expr, rights)
		}
		if (node.kind === 'children') {
			const child = getTable(catalogue, node.backReference.table)
			const column = getColumn(child, node.backReference.column)
			if (!isHeld(rights, child, column)) unheld = `${child.name}, ${column.name}`
		}
		return unheld !== undefined
	})
	return unheld
}

/** Throws `forbidden` where a formula reads what its writer does not see; `what` names the formula in the message. */
export function refuseUnheld(store: Store, expr: Expr, by: { actor: Actor; now: number; what: string }): void {
	const unheld = findUnheld(store, expr, by)
	if (unheld === undefined) return
	throw new AppError('forbidden', `${by.what} reads "${unheld}", of which you do not see every row. ${REMEDY}`)
}

const REMEDY = 'Ask whoever keeps that table; columns of People are opened to builders by a steward.'

function isHeld(rights: Rights, table: Table, column: Column): boolean {
	return isAlways(rights.rows(table)) && isAlways(rights.cell(table, column))
}
