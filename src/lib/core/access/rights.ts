/**
 * What one person may do at one moment: the lines of their roles, folded for them, as conditions over rows.
 *
 * - No line, no right: an empty list gives the condition `false`.
 * - Where a cell's condition is not always true, it holds only where the row's own does: plans rely on it.
 * - A cell is seen where a line that covers its column lets the row be seen; a computed cell only where every operand
 *   in its row is seen too, unless the builder vouched for it.
 * - Keepers of a table may do everything with its rows.
 * - What was asked of a person (a decision) is a written grant to see the named columns of one row.
 *
 * Pure: the store's condition and the explanation both come from here. Proved against an independent calculation by
 * `npm run check-values -- access` and `tests/unit/access.test.ts`.
 */
import { isAlways, isNever } from '../formula/syntax/constant.ts'
import type { Visibility } from '../formula/sql/sql-context.ts'
import { fold, type Moment } from '../formula/evaluate/fold.ts'
import type { Expr } from '../model/formula.ts'
import { ownColumns } from '../formula/syntax/walk.ts'
import { getColumn, type Column, type Table } from '../model/table.ts'
import { covers, type ColumnScope, type Line, type Verb } from './types.ts'

export interface Reader {
	/** The number of the person's row. */
	readonly person: number
	/** All roles held, with those they include. */
	readonly roles: ReadonlySet<number>
	/** Tables of which rows were granted to this person by name. */
	readonly grants: ReadonlySet<number>
	/** Whether the keepers' own right counts; not when looking as somebody else, or as a routine's role. */
	readonly keeps: (table: Table) => boolean
}

export interface Right {
	readonly line: Line | undefined
	readonly where: Expr
	readonly after: Expr
	readonly columns: ColumnScope
}

export interface Rights extends Visibility {
	/** The moment that the lines were folded for. */
	readonly moment: Moment
	/** The lines by which this person may do something with rows of a table. */
	of(verb: Verb, table: Table): readonly Right[]
	/** Whether any row could be meant: decides what is offered, never what is allowed. */
	mayPossibly(verb: Verb, table: Table, column?: Column): boolean
}

export const NOTHING: Expr = { kind: 'literal', value: false, type: { kind: 'yesno' } }
export const EVERYTHING: Expr = { kind: 'literal', value: true, type: { kind: 'yesno' } }

/** What the lines give a reader at a moment, worked out when it is first asked for and kept while the rights are. */
export function rightsOf(reader: Reader, lines: readonly Line[], moment: Moment): Rights {
	const cache = new Map<string, readonly Right[]>()

	function of(verb: Verb, table: Table): readonly Right[] {
		const key = `${verb} ${table.id}`
		const known = cache.get(key)
		if (known) return known
		const found = findRights(verb, table)
		cache.set(key, found)
		return found
	}

	function findRights(verb: Verb, table: Table): readonly Right[] {
		if (reader.keeps(table))
			return [{ line: undefined, where: EVERYTHING, after: EVERYTHING, columns: { kind: 'all' } }]
		const held = lines.filter(
			(line) => line.table === table.id && line.verbs.includes(verb) && reader.roles.has(line.role)
		)
		const rights = held.map((line) => {
			const where = fold(line.where, moment)
			return { line, where, after: line.after ? fold(line.after, moment) : where, columns: line.columns }
		})
		return rights.filter((right) => !isNever(right.where))
	}

	function rows(table: Table): Expr {
		const conditions = of('see', table).map((right) => right.where)
		return anyOf(reader.grants.has(table.id) ? [...conditions, granted(reader, table)] : conditions)
	}

	function cell(table: Table, column: Column): Expr {
		const own = plainCell(table, column)
		if (!column.computed || column.computed.vouched || isNever(own)) return own
		const operands = [...ownColumns(column.computed.expr)].map((id) => cell(table, getColumn(table, id)))
		return bothOf([own, ...operands])
	}

	function plainCell(table: Table, column: Column): Expr {
		const all = of('see', table)
		const covering = all.filter((right) => covers(right.columns, column.id))
		const some = reader.grants.has(table.id)
		if (covering.length === all.length && !some) return all.length === 0 ? NOTHING : EVERYTHING
		const conditions = covering.map((right) => right.where)
		return anyOf(some ? [...conditions, granted(reader, table, column)] : conditions)
	}

	function mayPossibly(verb: Verb, table: Table, column?: Column): boolean {
		return of(verb, table).some((right) => column === undefined || covers(right.columns, column.id))
	}

	return { moment, of, rows, cell, mayPossibly }
}

function granted(reader: Reader, table: Table, column?: Column): Expr {
	const of = column ? { column: column.id } : {}
	return { kind: 'granted', table, person: reader.person, ...of, type: { kind: 'yesno' } }
}

function anyOf(conditions: readonly Expr[]): Expr {
	const possible = conditions.filter((condition) => !isNever(condition))
	if (possible.some(isAlways)) return EVERYTHING
	const [only] = possible
	if (possible.length <= 1) return only ?? NOTHING
	return { kind: 'or', args: possible, type: { kind: 'yesno' } }
}

function bothOf(conditions: readonly Expr[]): Expr {
	if (conditions.some(isNever)) return NOTHING
	const open = conditions.filter((condition) => !isAlways(condition))
	const [only] = open
	if (open.length <= 1) return only ?? EVERYTHING
	return { kind: 'and', args: open, type: { kind: 'yesno' } }
}

/** What two people may both see: for looking as somebody else at tables that the looker does not keep. */
export function withinVisibilityOf(rights: Rights, looker: Rights, keeps: (table: Table) => boolean): Rights {
	const rows = (table: Table) => (keeps(table) ? rights.rows(table) : bothOf([rights.rows(table), looker.rows(table)]))
	return {
		...rights,
		rows,
		cell: (table, column) => {
			const own = rights.cell(table, column)
			if (keeps(table)) return own
			const cell = bothOf([own, looker.cell(table, column)])
			// Each alone says that its row is seen; of both, only the one that is not always so still does.
			return isAlways(cell) ? cell : bothOf([cell, rows(table)])
		}
	}
}
