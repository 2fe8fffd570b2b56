import { z } from 'zod'
import { checkColumns, mistake, TABLE_GONE } from '../../document/findings.ts'
import { number } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'
import { remarkUnseen } from './unseen.ts'

export const recordSchema = z.object({
	...lineParts,
	kind: z.literal('record'),
	table: number,
	columns: z.array(number)
})
export type RecordLine = z.infer<typeof recordSchema>

export const record: LineEntry<RecordLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'record',
			about: 'One row, shown whole; who may change it can do so there',
			tableKey: 'table',
			parts: withWhom('Record sheet of ', { key: 'table', type: 'table', title: 'a table' }, ', showing ', {
				key: 'columns',
				type: 'columns',
				title: 'columns'
			})
		},
		blank: { kind: 'record', table: null, columns: [], who: [] }
	},
	written: ({ columns }) => columns,
	showsRow: () => true,
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		return [...checkWhom(line, around), ...checkColumns(line.columns, table), ...remarkUnseen(table, around.lines)]
	}
}
