import { z } from 'zod'
import { columnType } from '../../formula/check/column-type.ts'
import { checkGrouping, groupingSchema } from '../../sentence/check-grouping.ts'
import { mistake, SCREEN_GONE, TABLE_GONE, type Found } from '../../document/findings.ts'
import { formula, id, number, words } from '../../document/parts.ts'
import { findColumn, type Table } from '../../model/table.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { checkRows, ROW_OPENS, TITLE_OVER } from './measured.ts'
import { checkWhom, lineParts, withWhom, WHICH_ROWS, ONCE_CHOSEN } from './parts.ts'
import { remarkUnseen } from './unseen.ts'

export const scatterSchema = z.object({
	...lineParts,
	kind: z.literal('scatter'),
	/** Columns of numbers: what goes up, and what goes across. */
	up: number.nullable(),
	across: number.nullable(),
	table: number,
	where: formula,
	once: formula.default(''),
	/** By which its dots are told apart. */
	parted: groupingSchema.nullable().default(null),
	title: words.default(''),
	/** The screen that a row behind a dot opens. */
	opens: id.nullable().default(null)
})
export type ScatterLine = z.infer<typeof scatterSchema>

/** Every row as a dot at two of its numbers; many close together are one larger dot. */
export const scatter: LineEntry<ScatterLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'scatter',
			about: 'Every row as a dot at two of its numbers, such as the wear of chains against their age',
			tableKey: 'table',
			parts: withWhom(
				'Scatter of ',
				{ key: 'up', type: 'column', title: 'a column of numbers' },
				' against ',
				{ key: 'across', type: 'column', title: 'a column of numbers' },
				', from ',
				{ key: 'table', type: 'table', title: 'a table' },
				' ',
				WHICH_ROWS,
				ONCE_CHOSEN,
				{
					key: 'parted',
					type: 'grouping',
					title: 'By what dots differ',
					before: ', told apart by ',
					clause: 'told apart by…'
				},
				TITLE_OVER,
				ROW_OPENS
			)
		},
		blank: {
			...{ kind: 'scatter', up: null, across: null, table: null, where: '', once: '', parted: null, title: '' },
			...{ opens: null, who: [] }
		}
	},
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		return [
			...checkWhom(line, around),
			...checkNumbers('up', line.up, table, around),
			...checkNumbers('across', line.across, table, around),
			...[line.where, line.once].flatMap((condition) => checkRows(condition, table, around)),
			...(line.parted === null ? [] : checkGrouping(line.parted, table, around)),
			...(line.opens !== null && !around.hasScreen(line.opens) ? mistake(SCREEN_GONE) : []),
			...remarkUnseen(table, around.lines)
		]
	}
}

function checkNumbers(way: 'up' | 'across', id: number | null, table: Table, { catalogue }: Around): Found[] {
	if (id === null) return mistake(`Say which column of numbers goes ${way}.`)
	const column = findColumn(table, id)
	if (!column) return mistake(`The column that goes ${way} is gone.`)
	return columnType(catalogue, column).kind === 'number' ? [] : mistake(`${column.name} is no column of numbers.`)
}

/** The columns behind it, by which its rows are narrowed down to those of one dot. */
export function columnsOfScatter({ up, across, parted }: ScatterLine): number[] {
	return [across, up, parted?.column].filter((column) => column !== null && column !== undefined)
}
