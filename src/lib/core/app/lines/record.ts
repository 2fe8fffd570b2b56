import { z } from 'zod'
import { checkColumns, mistake, TABLE_GONE } from '../../document/findings.ts'
import { id, number } from '../../document/parts.ts'
import type { LineEntry } from './entry.ts'
import { remarkUnseen } from './unseen.ts'

export const recordSchema = z.object({ id, kind: z.literal('record'), table: number, columns: z.array(number) })
export type RecordLine = z.infer<typeof recordSchema>

export const record: LineEntry<RecordLine> = {
	sentence: {
		kind: {
			kind: 'record',
			about: 'One row, shown whole; who may change it can do so there',
			tableKey: 'table',
			parts: [
				'Record sheet of ',
				{ key: 'table', type: 'table', title: 'a table' },
				', showing ',
				{ key: 'columns', type: 'columns', title: 'columns' }
			]
		},
		blank: { kind: 'record', table: null, columns: [] }
	},
	written: ({ columns }) => columns,
	order: () => undefined,
	showsRow: true,
	check(line, { catalogue, lines }) {
		const table = catalogue.tables.get(line.table)
		return table ? [...checkColumns(line.columns, table), ...remarkUnseen(table, lines)] : mistake(TABLE_GONE)
	}
}
