import { z } from 'zod'
import { mistake, TABLE_GONE, type Found } from '../../document/findings.ts'
import { formula, number, words } from '../../document/parts.ts'
import { check } from '../../formula/check/check.ts'
import { findColumn, type Column } from '../../model/table.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const putSchema = z.object({
	...lineParts,
	kind: z.literal('put'),
	table: number,
	column: number,
	/** Over the row; the moment of the press, where it is blank. */
	to: formula.default(''),
	/** The words on it; the column's name, where it is blank. */
	label: words.default('')
})
export type PutLine = z.infer<typeof putSchema>

export const put: LineEntry<PutLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'put',
			about: 'Puts a value into a column of a row at a press: the time now, a word, a sum',
			tableKey: 'table',
			parts: withWhom(
				'Puts ',
				{ key: 'to', type: 'formula', title: 'What it puts there', empty: 'the time now' },
				' into ',
				{ key: 'column', type: 'column', title: 'a column' },
				' of ',
				{ key: 'table', type: 'table', title: 'a table' },
				{ key: 'label', type: 'text', title: 'The words on it', before: ', called ', clause: 'called…' }
			)
		},
		blank: { kind: 'put', table: null, column: null, to: '', label: '', who: [] }
	},
	written: ({ column }) => [column],
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		const column = findColumn(table, line.column)
		if (!column) return mistake('The column that it writes is gone.')
		if (around.table !== undefined && around.table !== table.id)
			return mistake('It writes another table than that of the rows it stands among.')
		if (column.computed) return mistake(`${column.name} is worked out from other columns, and cannot be written.`)
		return [
			...checkWhom(line, around),
			...checkValue(line, column, () => check(line.to, { catalogue: around.catalogue, rows: [table], me: true }))
		]
	}
}

/** The moment of the press as a column of its type takes it; undefined for one that takes none. */
export function momentFor({ type }: Pick<Column, 'type'>): string | undefined {
	if (type === 'date') return 'TODAY()'
	return type === 'date and time' ? 'NOW()' : undefined
}

function checkValue({ to }: PutLine, column: Column, checked: () => ReturnType<typeof check>): Found[] {
	if (to.trim() !== '') return checked().issues.flatMap(({ message }) => mistake(message))
	return momentFor(column) === undefined
		? mistake(`${column.name} holds no time. Say what is put there, or choose a column of dates.`)
		: []
}
