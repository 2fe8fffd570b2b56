import { z } from 'zod'
import { mistake, TABLE_GONE, type Found } from '../../document/findings.ts'
import { formula, number, words } from '../../document/parts.ts'
import { columnType } from '../../formula/check/column-type.ts'
import { check } from '../../formula/check/check.ts'
import { printName } from '../../formula/check/rename.ts'
import { findColumn, type Column } from '../../model/table.ts'
import { TAKING_AWAY } from '../../sentence/slots/all.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const tallySchema = z.object({
	...lineParts,
	kind: z.literal('tally'),
	table: number,
	/** What is added to. */
	column: number,
	/** How much, over the row; one, where it is blank. */
	by: formula.default(''),
	less: z.enum(TAKING_AWAY).nullable().default(null),
	/** What it is called; the column's name, where it is blank. */
	label: words.default('')
})
export type TallyLine = z.infer<typeof tallySchema>

export const tally: LineEntry<TallyLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'tally',
			about: 'Adds a set amount to a number of a row at a press; what two people add at once both counts',
			tableKey: 'table',
			parts: withWhom(
				'Tally that adds ',
				{ key: 'by', type: 'formula', title: 'How much it adds', empty: '1' },
				' to ',
				{ key: 'column', type: 'column', title: 'a column' },
				' of ',
				{ key: 'table', type: 'table', title: 'a table' },
				{
					key: 'less',
					type: 'taking away',
					title: 'Whether it takes away too',
					before: ', and ',
					clause: 'takes it away too'
				},
				{ key: 'label', type: 'text', title: 'What it is called', before: ', called ', clause: 'called…' }
			)
		},
		blank: { kind: 'tally', table: null, column: null, by: '', less: null, label: '', who: [] }
	},
	written: ({ column }) => [column],
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		const column = findColumn(table, line.column)
		if (!column) return mistake('The column that it adds to is gone.')
		if (around.table !== undefined && around.table !== table.id)
			return mistake('It adds to another table than the list that it stands in.')
		const { expr, issues } = check(line.by || '1', { catalogue: around.catalogue, rows: [table], me: true })
		return [
			...checkWhom(line, around),
			...checkCounts(column, around),
			...issues.flatMap(({ message }) => mistake(message)),
			...(expr && expr.type.kind !== 'number' ? mistake('It adds a number; its formula gives none.') : [])
		]
	}
}

/** What the column comes to by one press: a blank counts as nothing. */
export function tallied({ by }: TallyLine, column: Column, isLess: boolean): string {
	return `${printName(column.name)} ${isLess ? '-' : '+'} (${by.trim() === '' ? '1' : by})`
}

function checkCounts(column: Column, { catalogue }: Around): Found[] {
	if (column.computed) return mistake(`${column.name} is worked out from other columns, and cannot be added to.`)
	return columnType(catalogue, column).kind === 'number'
		? []
		: mistake(`${column.name} is no number. Choose a column of numbers or money.`)
}
