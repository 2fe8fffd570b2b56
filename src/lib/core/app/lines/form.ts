import { z } from 'zod'
import { checkColumns, mistake, remark, TABLE_GONE } from '../../document/findings.ts'
import { id, number, words } from '../../document/parts.ts'
import type { LineEntry } from './entry.ts'

export const formSchema = z.object({
	id,
	kind: z.literal('form'),
	table: number,
	columns: z.array(number),
	/** What is said after sending. */
	thanks: words
})
export type FormLine = z.infer<typeof formSchema>

export const form: LineEntry<FormLine> = {
	sentence: {
		kind: {
			kind: 'form',
			about: 'Adds a row to a table',
			tableKey: 'table',
			parts: [
				'Form that adds to ',
				{ key: 'table', type: 'table', title: 'a table' },
				', asking for ',
				{ key: 'columns', type: 'columns', title: 'columns' },
				'; afterwards it says ',
				{ key: 'thanks', type: 'text', title: 'What is said after sending', empty: 'Saved.' }
			]
		},
		blank: { kind: 'form', table: null, columns: [], thanks: '' }
	},
	written: ({ columns }) => columns,
	order: () => undefined,
	showsRow: false,
	check(line, { catalogue, lines }) {
		const table = catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		const missing = table.columns.filter((column) => column.required && !line.columns.includes(column.id))
		const mayAdd = lines.some((each) => each.table === table.id && each.verbs.includes('add'))
		return [
			...checkColumns(line.columns, table),
			...missing.flatMap(({ name }) => mistake(`"${name}" must be filled in, but the form does not ask for it.`)),
			...(mayAdd ? [] : remark(`No line of access lets anybody add to ${table.name}, so nobody is offered this form.`))
		]
	}
}
