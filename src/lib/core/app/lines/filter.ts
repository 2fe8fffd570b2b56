import { z } from 'zod'
import { mistake, TABLE_GONE, type Found } from '../../document/findings.ts'
import { checkHeldName } from '../../sentence/held-kind.ts'
import { number, words } from '../../document/parts.ts'
import { findColumn, type Column, type ColumnTypeName } from '../../model/table.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const filterSchema = z.object({
	...lineParts,
	kind: z.literal('filter'),
	table: number,
	/** Whose values can be chosen among. */
	column: number,
	/** What the chosen value is called, for the other lines of the screen: `here.state`. */
	holds: words,
	/** What is asked; the column's name, where it is blank. */
	label: words.default('')
})
export type FilterLine = z.infer<typeof filterSchema>

/** Of which the values are few, or can be given by a field; these are proposed first. */
export const CHOSEN_AMONG: readonly ColumnTypeName[] = ['choice', 'reference', 'yes/no', 'date']

const TAKEN: ReadonlySet<ColumnTypeName> = new Set([
	...CHOSEN_AMONG,
	...(['whole number', 'decimal', 'money', 'percent', 'text', 'code'] as const)
])

export const filter: LineEntry<FilterLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'filter',
			about:
				'Lets a value of a column be chosen, by which other lines of the screen go; several lists can read the same one',
			tableKey: 'table',
			parts: withWhom(
				'Filter by ',
				{ key: 'column', type: 'column', title: 'a column' },
				' of ',
				{ key: 'table', type: 'table', title: 'a table' },
				' as ',
				{ key: 'holds', type: 'text', title: 'one word' },
				{ key: 'label', type: 'text', title: 'What is asked', before: ', asking ', clause: 'asking…' }
			)
		},
		blank: { kind: 'filter', table: null, column: null, holds: 'chosen', label: '', who: [] }
	},
	chooses: ({ holds, table, column }) => (holds === '' ? undefined : { name: holds, kind: { table, column } }),
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		return [
			...checkWhom(line, around),
			...checkColumn(findColumn(table, line.column)),
			...(line.holds === '' ? mistake('Say what the chosen value is called, in one word.') : checkHeldName(line.holds))
		]
	}
}

function checkColumn(column: Column | undefined): Found[] {
	if (!column) return mistake('The column that it filters by is gone.')
	return TAKEN.has(column.type)
		? []
		: mistake(
				`${column.name} has no values to choose among. Filter by a choice, a reference, yes or no, a date, a number or a short text.`
			)
}
