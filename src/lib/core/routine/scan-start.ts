/** Starts where somebody scans a code, or types it: on the row that has it, as whoever scanned. */
import { z } from 'zod'
import { mistake, TABLE_GONE } from '../document/findings.ts'
import { number } from '../document/parts.ts'
import { findColumn } from '../model/table.ts'
import { ACTS_AS } from './acts-as.ts'
import type { StartEntry } from './step-entry.ts'

export const scanStartSchema = z.object({ kind: z.literal('scan'), table: number, column: number })
export type ScanStart = z.infer<typeof scanStartSchema>

/** Types of columns that hold what stands in a bar of lines, or beside it. */
export const SCANNED: readonly string[] = ['code', 'text']

export const scanStart: StartEntry<ScanStart> = {
	sentence: {
		kind: {
			kind: 'scan',
			about: 'Starts when a code is scanned or typed on a screen, on the row that has it',
			tableKey: 'start.table',
			parts: [
				'When a code in ',
				{ key: 'start.column', type: 'column', title: 'in which column it stands' },
				' of ',
				{ key: 'start.table', type: 'table', title: 'a table' },
				' is scanned',
				ACTS_AS
			]
		},
		blank: { start: { kind: 'scan', table: null, column: null } }
	},
	offer: 'when a code is scanned',
	isPressed: true,
	holds: { scanned: { type: 'text' } },
	takes: 'nothing',
	begin: (table) => ({ kind: 'scan', table, column: 1 }),
	check({ column: id }, table) {
		if (!table) return mistake(TABLE_GONE)
		const column = findColumn(table, id)
		if (!column) return mistake('The column with the codes is gone. Choose another.')
		return SCANNED.includes(column.type) && !column.computed
			? []
			: mistake(`${column.name} holds no codes. Choose a column of codes or of text.`)
	}
}
