import { z } from 'zod'
import { columnType } from '../../formula/check/column-type.ts'
import { findColumn, type Table } from '../../model/table.ts'
import { mistake, TABLE_GONE, type Found } from '../../document/findings.ts'
import { formula, id, number } from '../../document/parts.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { lineParts, withWhom, WHICH_ROWS, ONCE_CHOSEN } from './parts.ts'
import { checkShowsRows, TAP_OPENS } from './shows-rows.ts'
import type { TreeLine } from './tree.ts'

export const boardSchema = z.object({
	...lineParts,
	kind: z.literal('board'),
	table: number,
	where: formula,
	once: formula.default(''),
	/** A choice: its values are the lanes, and a row is moved by another one. */
	by: number,
	sort: z.array(z.object({ column: number, descending: z.boolean() })).default([]),
	/** What each card shows: the first big, the others small. */
	columns: z.array(number),
	opens: id.nullable().default(null),
	/** A column of numbers that is added up at the foot of each lane. */
	sums: number.nullable().default(null)
})
export type BoardLine = z.infer<typeof boardSchema> & { readonly lines: readonly TreeLine[] }

/** More nobody overlooks; and a move is tried in each before it is made. */
export const MOST_LANES = 12

/** Rows in lanes by what is under way with them, moved from one to another. */
export const board: LineEntry<BoardLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'board',
			about: 'Rows in lanes by a choice, such as requests by how far they are; a card is moved to another lane by hand',
			tableKey: 'table',
			parts: withWhom(
				'Board of ',
				{ key: 'table', type: 'table', title: 'a table' },
				' ',
				WHICH_ROWS,
				ONCE_CHOSEN,
				', in lanes by ',
				{ key: 'by', type: 'column', title: 'a choice' },
				'; each card shows ',
				{ key: 'columns', type: 'columns', title: 'columns' },
				{
					...{ key: 'sort', type: 'sorts', title: 'Order', empty: 'the order they came in' },
					...{ before: '; in the order of ', clause: 'in the order of…' }
				},
				TAP_OPENS,
				{ key: 'sums', type: 'column', title: 'Added up in each lane', before: '; adds up ', clause: 'adds up…' }
			)
		},
		blank: {
			...{ kind: 'board', table: null, where: '', once: '', by: null, sort: [], columns: [], opens: null },
			...{ sums: null, who: [], lines: [] }
		}
	},
	holds: ['mark'],
	written: ({ by }) => [by],
	order: ({ table, sort: [first] }) => first && { table, column: first.column },
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		return [
			...checkShowsRows(line, table, around),
			...checkLanes(line, table),
			...(line.sort.every(({ column }) => findColumn(table, column))
				? []
				: mistake('A column it is sorted by is gone.')),
			...checkSums(line, table, around)
		]
	}
}

function checkLanes({ by }: BoardLine, table: Table): Found[] {
	const column = findColumn(table, by)
	if (column?.type !== 'choice') return mistake('The lanes of a board are those of a choice. Choose such a column.')
	const lanes = column.choices?.length ?? 0
	return lanes > MOST_LANES
		? mistake(
				`${column.name} has ${lanes} choices, and a board takes at most ${MOST_LANES} lanes. Show a list of them.`
			)
		: []
}

function checkSums({ sums }: BoardLine, table: Table, { catalogue }: Around): Found[] {
	if (sums === null) return []
	const column = findColumn(table, sums)
	return column && columnType(catalogue, column).kind === 'number'
		? []
		: mistake('What is added up in each lane is no column of numbers.')
}
