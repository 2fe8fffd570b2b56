import { z } from 'zod'
import { checkColumns, mistake, TABLE_GONE } from '../../document/findings.ts'
import { number, words } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

/** Some columns of a sheet under a heading of their own. */
export const partSchema = z.object({ ...lineParts, kind: z.literal('part'), title: words, columns: z.array(number) })
export type PartLine = z.infer<typeof partSchema>

export const part: LineEntry<PartLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'part',
			about: 'A part of a record sheet: some of its columns under a heading',
			parts: withWhom('Part ', { key: 'title', type: 'text', title: 'title' }, ' with ', {
				key: 'columns',
				type: 'columns',
				title: 'columns'
			})
		},
		blank: { kind: 'part', title: '', columns: [], who: [] }
	},
	isInner: true,
	written: ({ columns }) => columns,
	check(line, around) {
		const table = around.table === undefined ? undefined : around.catalogue.tables.get(around.table)
		if (!table) return mistake(TABLE_GONE)
		return [
			...checkWhom(line, around),
			...checkColumns(line.columns, table),
			...(line.title.trim() === '' ? mistake('A part needs a title.') : [])
		]
	}
}
