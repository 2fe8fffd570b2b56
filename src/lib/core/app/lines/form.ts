import { z } from 'zod'
import { checkColumns, mistake, remark, SCREEN_GONE, TABLE_GONE, type Found } from '../../document/findings.ts'
import { id, number, words } from '../../document/parts.ts'
import type { Column, Table } from '../../model/table.ts'
import { check } from '../../formula/check/check.ts'
import { piecesIn } from '../../text/pieces.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import type { EntryLine } from './entry-line.ts'
import { AFTER_SENDING, CHANGING } from '../../sentence/slots/all.ts'
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
	/** Where the screen shows a row of the table, it changes that one. */
	changes: z.enum(CHANGING).nullable().default(null),
	then: z.enum(AFTER_SENDING).nullable().default(null),
	/** The screen that is opened then: with the row that was sent, where it shows one. */
	opens: id.nullable().default(null),
	/** What is said after sending; formulas in braces read the row. */
	thanks: words
})
export type FormLine = z.infer<typeof formSchema> & { readonly lines: readonly TreeLine[] }

export const form: LineEntry<FormLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'form',
			about: 'Adds a row to a table, or changes the one that is shown',
			tableKey: 'table',
			parts: withWhom(
				'Form that adds to ',
				{ key: 'table', type: 'table', title: 'a table' },
				{
					...{ key: 'changes', type: 'changing', title: 'What it changes' },
					...{ before: ', or changes ', clause: 'or changes the row that is shown' }
				},
				{
					...{ key: 'of', type: 'column', title: 'The row that is shown goes into' },
					...{ before: ', for the row that is shown, as ', clause: 'for the row that is shown, as…' }
				},
				{ key: 'columns', type: 'columns', title: 'columns', before: ', asking for ', clause: 'asking for…' },
				'; afterwards it says ',
				{ key: 'thanks', type: 'subject', title: 'What is said after sending', empty: 'Saved.' },
				{
					...{ key: 'then', type: 'after sending', title: 'After sending' },
					...{ before: '; then it ', clause: 'then it…' }
				},
				{
					...{ key: 'opens', type: 'screen', title: 'What it opens then' },
					...{ before: '; then it opens ', clause: 'then it opens…' }
				}
			)
		},
		blank: {
			kind: 'form',
			table: null,
			columns: [],
			thanks: '',
			of: null,
			changes: null,
			then: null,
			opens: null,
			who: [],
			lines: []
		}
	},
	holds: ['entry', 'items', 'shown', 'page', 'heading', 'text', 'divider'],
	written: ({ columns, of }) => (of === null ? columns : [...columns, of]),
	showsRow: ({ of, changes }) => of !== null || changes !== null,
	check(line, around) {
		const { catalogue, lines } = around
		const table = catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		const asked = columnsAsked(line)
		// One that changes what is there adds only where it asks for all that it must.
		const missing = line.changes === null ? unaskedOf(line, table) : []
		const verb = line.changes === null ? 'add' : 'change'
		const maySend = lines.some(
			({ table: of, verbs }) => of === table.id && (verbs.includes('add') || verbs.includes(verb))
		)
		return [
			...checkWhom(line, around),
			...(line.columns.length > 0 ? checkColumns(line.columns, table) : []),
			...checkBelongs(line.of, table),
			...(line.opens !== null && !around.hasScreen(line.opens) ? mistake(SCREEN_GONE) : []),
			...checkThanks(line.thanks, table, around),
			...(line.of !== null && line.changes !== null
				? mistake(
						'It cannot both change the row that is shown and add one that belongs to it. Take one of the two off.'
					)
				: []),
			...(asked.length === 0 ? mistake('It asks for nothing yet.') : []),
			...missing.flatMap(({ name }) => mistake(`"${name}" must be filled in, but the form does not ask for it.`)),
			...(maySend
				? []
				: remark(
						`No line of access lets anybody ${verb === 'add' ? 'add to' : 'change'} ${table.name}, so nobody is offered this form.`
					))
		]
	}
}

function checkThanks(thanks: string, table: Table, { catalogue, here }: Around): Found[] {
	const scope = { catalogue, rows: [table], me: true, here }
	return piecesIn(thanks).flatMap((formula) => check(formula, scope).issues.flatMap(({ message }) => mistake(message)))
}

/** What must be filled in of a new row, and is not asked for. */
export function unaskedOf(line: FormLine, table: Table): Column[] {
	const asked = columnsAsked(line)
	return table.columns.filter((column) => column.required && column.id !== line.of && !asked.includes(column.id))
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
