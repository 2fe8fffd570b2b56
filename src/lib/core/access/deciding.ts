/**
 * Columns that decide who may do what. Those of people are marked: whoever changes one changes somebody's rights, so that
 * takes the right to grant, and is never one's own to do. Those of other tables are only told to the builder.
 */
import type { Expr } from '../model/formula.ts'
import { someNode } from '../formula/syntax/walk.ts'
import { hasKey } from '../table/storage.ts'
import type { Column, Table } from '../model/table.ts'
import type { Line, Role } from './types.ts'

export interface DecidingColumn {
	readonly table: Table
	readonly column: Column
}

/** Every plain column that lines and roles read, through references and computed columns too. */
export function decidingColumns(lines: readonly Line[], roles: readonly Role[]): readonly DecidingColumn[] {
	const found = new Map<number, DecidingColumn>()
	const read = (expr: Expr | undefined): void => {
		if (!expr) return
		someNode(expr, (node) => {
			const column = node.kind === 'field' || node.kind === 'me' ? node.column : undefined
			if (column?.computed) read(column.computed.expr)
			else if (column && (node.kind === 'field' || node.kind === 'me'))
				found.set(column.id, { table: node.table, column })
			return false
		})
	}
	for (const line of lines) {
		read(line.where)
		read(line.after)
	}
	for (const role of roles) read(role.where)
	return [...found.values()]
}

/** The ids of the marked columns of the people table: those that decide, and the addresses by which people sign in. */
export function markedColumns(people: Table, deciding: readonly DecidingColumn[]): ReadonlySet<number> {
	const read = deciding.filter(({ table }) => table.id === people.id).map(({ column }) => column.id)
	const addresses = people.columns.filter((column) => column.type === 'email').map((column) => column.id)
	return new Set([...read, ...addresses])
}

/**
 * The plain columns of a table by which lines let people see rows as theirs: `diver = me`, `email = me.email`. Only those that
 * are stored as they are compared: a choice, say, is a number in its own column's order.
 */
export function columnsComparedWithMe(table: Table, lines: readonly Line[]): readonly Column[] {
	const found = new Set<Column>()
	for (const line of lines) {
		if (line.table !== table.id || !line.verbs.includes('see')) continue
		someNode(line.where, (node) => {
			if (node.kind !== 'compare' || node.op !== '=') return false
			for (const [side, other] of [[node.left, node.right] as const, [node.right, node.left] as const])
				if (isOwnColumn(side) && someNode(other, (part) => part.kind === 'me')) found.add(side.column)
			return false
		})
	}
	return [...found]
}

function isOwnColumn(expr: Expr): expr is Expr & { kind: 'field' } {
	if (expr.kind !== 'field' || expr.of.kind !== 'this' || expr.column.computed) return false
	return expr.column.type === 'reference' || hasKey(expr.column)
}
