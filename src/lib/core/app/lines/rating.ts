import { z } from 'zod'
import { mistake, TABLE_GONE, type Found } from '../../document/findings.ts'
import { number, words } from '../../document/parts.ts'
import { findColumn, type Column } from '../../model/table.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

/** More are not told apart at a glance, and stand in no row on a phone. */
const MOST = 10

export const ratingSchema = z.object({
	...lineParts,
	kind: z.literal('rating'),
	table: number,
	/** A column of whole numbers. */
	column: number,
	/** The highest mark; the lowest is 1. */
	most: number.max(999_999),
	/** What is asked; the column's name, where it is blank. */
	label: words.default('')
})
export type RatingLine = z.infer<typeof ratingSchema>

export const rating: LineEntry<RatingLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'rating',
			about: 'Lets the row that is shown be given a mark from 1 up, at one press; the same mark again takes it back',
			tableKey: 'table',
			parts: withWhom(
				'Rating of ',
				{ key: 'table', type: 'table', title: 'a table' },
				' by ',
				{ key: 'column', type: 'column', title: 'a column of whole numbers' },
				', from 1 to ',
				{ key: 'most', type: 'count', title: 'The highest mark' },
				{ key: 'label', type: 'text', title: 'What is asked', before: ', asking ', clause: 'asking…' }
			)
		},
		blank: { kind: 'rating', table: null, column: null, most: 5, label: '', who: [] }
	},
	written: ({ column }) => [column],
	showsRow: () => true,
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		return [
			...checkWhom(line, around),
			...checkColumn(findColumn(table, line.column)),
			...(line.most < 2 || line.most > MOST ? mistake(`Marks go from 1 to something between 2 and ${MOST}.`) : [])
		]
	}
}

function checkColumn(column: Column | undefined): Found[] {
	if (!column) return mistake('The column that holds the mark is gone.')
	return column.type === 'whole number'
		? []
		: mistake(`${column.name} holds no whole numbers, and so no marks. Choose a column that does.`)
}
