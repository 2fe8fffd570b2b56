import { z } from 'zod'
import { checkColumns, mistake, remark, TABLE_GONE } from '../../document/findings.ts'
import { number, words } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import type { EntryLine } from './entry-line.ts'
import { AFTER_SENDING } from '../../sentence/slots/all.ts'
import { checkBelongs, checkWhom, lineParts, withWhom } from './parts.ts'
import { placedLines, type TreeLine } from './tree.ts'

export const formSchema = z.object({
	...lineParts,
	kind: z.literal('form'),
	table: number,
	/** Asked for as they are; lines within say of some what is to be said of them. */
	columns: z.array(number),
	/** The column that refers to the row that the screen shows: filled with it, and not asked. */
	of: number.nullable().default(null),
	then: z.enum(AFTER_SENDING).nullable().default(null),
	/** What is said after sending. */
	thanks: words
})
export type FormLine = z.infer<typeof formSchema> & { readonly lines: readonly TreeLine[] }

export const form: LineEntry<FormLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'form',
			about: 'Adds a row to a table',
			tableKey: 'table',
			parts: withWhom(
				'Form that adds to ',
				{ key: 'table', type: 'table', title: 'a table' },
				{
					...{ key: 'of', type: 'column', title: 'The row that is shown goes into' },
					...{ before: ', for the row that is shown, as ', clause: 'for the row that is shown, as…' }
				},
				{ key: 'columns', type: 'columns', title: 'columns', before: ', asking for ', clause: 'asking for…' },
				'; afterwards it says ',
				{ key: 'thanks', type: 'text', title: 'What is said after sending', empty: 'Saved.' },
				{
					...{ key: 'then', type: 'after sending', title: 'After sending' },
					...{ before: '; then it ', clause: 'then it…' }
				}
			)
		},
		blank: { kind: 'form', table: null, columns: [], thanks: '', of: null, then: null, who: [], lines: [] }
	},
	holds: ['entry', 'items', 'shown', 'page', 'heading', 'text', 'divider'],
	written: ({ columns, of }) => (of === null ? columns : [...columns, of]),
	showsRow: ({ of }) => of !== null,
	check(line, around) {
		const { catalogue, lines } = around
		const table = catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		const asked = columnsAsked(line)
		const missing = table.columns.filter(
			(column) => column.required && column.id !== line.of && !asked.includes(column.id)
		)
		const mayAdd = lines.some((each) => each.table === table.id && each.verbs.includes('add'))
		return [
			...checkWhom(line, around),
			...(line.columns.length > 0 ? checkColumns(line.columns, table) : []),
			...checkBelongs(line.of, table),
			...(asked.length === 0 ? mistake('It asks for nothing yet.') : []),
			...missing.flatMap(({ name }) => mistake(`"${name}" must be filled in, but the form does not ask for it.`)),
			...(mayAdd ? [] : remark(`No line of access lets anybody add to ${table.name}, so nobody is offered this form.`))
		]
	}
}

/** The columns of its own table that a form asks for, those of its pages too; what goes into other tables is not among them. */
export function columnsAsked({ columns, lines }: Pick<FormLine, 'columns' | 'lines'>): readonly number[] {
	const own = placedLines(lines).filter(({ within }) => within.every(({ kind }) => kind !== 'items'))
	const closer = own.flatMap(({ line }) => (isEntry(line) ? [line.column] : []))
	return [...new Set([...columns, ...closer])]
}

function isEntry(line: TreeLine): line is TreeLine & EntryLine {
	return line.kind === 'entry'
}
