import { z } from 'zod'
import type { Line } from '../../access/types.ts'
import { checkCondition } from '../../formula/check/check.ts'
import { isSameTree, someNode } from '../../formula/syntax/walk.ts'
import type { Expr } from '../../model/formula.ts'
import { findColumn, type Table } from '../../model/table.ts'
import { checkColumns, mistake, remark, SCREEN_GONE, TABLE_GONE, type Found } from '../../document/findings.ts'
import { formula, id, number } from '../../document/parts.ts'
import type { Around, LineEntry } from './entry.ts'
import { remarkUnseen } from './unseen.ts'

export const listSchema = z.object({
	id,
	kind: z.literal('list'),
	table: number,
	where: formula,
	sort: z.object({ column: number, descending: z.boolean() }).nullable(),
	/** What each row shows: the first big, the others small. */
	columns: z.array(number),
	/** The screen that a row opens. */
	opens: id.nullable()
})
export type ListLine = z.infer<typeof listSchema>

export const list: LineEntry<ListLine> = {
	sentence: {
		kind: {
			kind: 'list',
			about: 'Rows of a table, one under the other',
			tableKey: 'table',
			parts: [
				'List of ',
				{ key: 'table', type: 'table', title: 'a table' },
				' ',
				{ key: 'where', type: 'condition', title: 'Which rows', before: 'where ', empty: 'every row' },
				', by ',
				{ key: 'sort', type: 'sort', title: 'Order', empty: 'the order they came in' },
				'; each row shows ',
				{ key: 'columns', type: 'columns', title: 'columns' },
				'; a tap opens ',
				{ key: 'opens', type: 'screen', title: 'A screen', empty: 'nothing' }
			]
		},
		blank: { kind: 'list', table: null, where: '', sort: null, columns: [], opens: null }
	},
	written: () => [],
	order: ({ table, sort }) => (sort ? { table, column: sort.column } : undefined),
	showsRow: false,
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		return [
			...checkColumns(line.columns, table),
			...remarkUnseen(table, around.lines),
			...(line.opens !== null && !around.hasScreen(line.opens) ? mistake(SCREEN_GONE) : []),
			...(line.sort && !findColumn(table, line.sort.column) ? mistake('The column it is sorted by is gone.') : []),
			...checkWhere(line.where, table, around)
		]
	}
}

function checkWhere(where: string, table: Table, { catalogue, lines }: Around): Found[] {
	if (where.trim() === '') return []
	const { expr, issues } = checkCondition(where, { catalogue, rows: [table], me: true })
	const hides = expr && readsMe(expr) && !isGuarded(expr, table, lines)
	return [
		...issues.flatMap(({ message }) => mistake(message)),
		...(hides
			? remark(
					'This hides rows by who looks; it does not guard them. Write the same condition as a line of access if they must not be seen.'
				)
			: [])
	]
}

/** Whether each line that lets rows be seen asks at least what the list does, as far as the texts tell. */
function isGuarded(expr: Expr, table: Table, lines: readonly Line[]): boolean {
	const asked = partsOfAnd(expr)
	const seeing = lines.filter((line) => line.table === table.id && line.verbs.includes('see'))
	return seeing.every((line) => {
		const has = partsOfAnd(line.where)
		return asked.filter(readsMe).every((part) => has.some((each) => isSameTree(each, part)))
	})
}

function partsOfAnd(expr: Expr): readonly Expr[] {
	return expr.kind === 'and' ? expr.args.flatMap(partsOfAnd) : [expr]
}

/** Also by way of a named condition or another computed column. */
function readsMe(expr: Expr): boolean {
	return someNode(
		expr,
		(node) =>
			node.kind === 'me' ||
			(node.kind === 'field' && node.column.computed !== undefined && readsMe(node.column.computed.expr))
	)
}
