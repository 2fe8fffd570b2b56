import { z } from 'zod'
import { checkColumns, mistake, TABLE_GONE } from '../../document/findings.ts'
import { number, words } from '../../document/parts.ts'
import { ACROSS } from '../../sentence/slots/all.ts'
import { nameKey } from '../../text/key.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'
import type { PartLine } from './part.ts'
import type { TreeLine } from './tree.ts'
import { remarkUnseen } from './unseen.ts'

export const recordSchema = z.object({
	...lineParts,
	kind: z.literal('record'),
	table: number,
	columns: z.array(number),
	/** By its name, the row that is chosen in a list of the screen; that of the screen itself, where it is blank. */
	held: words.default(''),
	across: z.enum(ACROSS).nullable().default(null)
})
export type RecordLine = z.infer<typeof recordSchema> & { readonly lines: readonly TreeLine[] }

export const record: LineEntry<RecordLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'record',
			about: 'One row, shown whole; who may change it can do so there',
			tableKey: 'table',
			parts: withWhom(
				'Record sheet of ',
				{ key: 'table', type: 'table', title: 'a table' },
				', showing ',
				{ key: 'columns', type: 'columns', title: 'columns' },
				{
					...{ key: 'held', type: 'text', title: 'The chosen row that it shows' },
					...{ before: ', of the chosen ', clause: 'of the chosen…' }
				},
				{ key: 'across', type: 'across', title: 'How it stands', before: ', ', clause: 'in two columns' }
			)
		},
		blank: { kind: 'record', table: null, columns: [], held: '', across: null, who: [], lines: [] }
	},
	holds: ['part', 'tally'],
	written: ({ columns }) => columns,
	showsRow: ({ held }) => held === '',
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		const held = around.here?.get(nameKey(line.held))
		return [
			...checkWhom(line, around),
			...checkColumns(line.columns, table),
			...(line.held === '' || (held?.type.kind === 'row' && held.type.table.id === table.id)
				? []
				: mistake(`Nothing on this screen chooses or holds a row of ${table.name} called "${line.held}".`)),
			...remarkUnseen(table, around.lines)
		]
	}
}

/** Every column that a sheet shows, those of its parts among them: what can be changed there. */
export function columnsOfSheet({ columns, lines }: RecordLine): number[] {
	return [...new Set([...columns, ...partsOf(lines).flatMap((part) => part.columns)])]
}

/** A sheet holds parts, and what is no part of what it shows. */
export function partsOf(lines: RecordLine['lines']): PartLine[] {
	return lines.filter((line): line is PartLine => line.kind === 'part')
}
