/** What a form asks for, said more closely than by its list of columns. */
import { z } from 'zod'
import { check, checkCondition } from '../../formula/check/check.ts'
import { mistake, type Found } from '../../document/findings.ts'
import { formula, number, words } from '../../document/parts.ts'
import { findColumn, type Table } from '../../model/table.ts'
import { ABREAST, REMEMBERED } from '../../sentence/slots/all.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const entrySchema = z.object({
	...lineParts,
	kind: z.literal('entry'),
	/** Of the table that the form adds to, or that the rows asked for go into. */
	column: number,
	/** Words under it, and words that stand in it until something is typed. */
	help: words.default(''),
	sample: words.default(''),
	/** A formula for what it begins with. */
	starts: formula.default(''),
	remembers: z.enum(REMEMBERED).nullable().default(null),
	stands: z.enum(ABREAST).nullable().default(null),
	/** Where these do not hold it is not asked, and what was typed is not sent. */
	when: formula.default(''),
	must: formula.default(''),
	/** What is sent is refused unless this holds, with these words. */
	unless: formula.default(''),
	says: words.default(''),
	/** For a reference: a condition over the rows to choose from, with the row that is filled in as `this`. */
	from: formula.default('')
})
export type EntryLine = z.infer<typeof entrySchema>

export const entry: LineEntry<EntryLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'entry',
			about: 'One thing that a form asks for, with its help, its conditions and what it begins with',
			parts: withWhom(
				'Ask for ',
				{ key: 'column', type: 'column', title: 'What is asked for' },
				{ key: 'stands', type: 'abreast', title: 'Where it stands', before: ', ', clause: 'beside the one before' },
				{ key: 'help', type: 'text', title: 'Help under it', before: ', with the help ', clause: 'with help…' },
				{ key: 'sample', type: 'text', title: 'A sample in it', before: ', such as ', clause: 'such as…' },
				{
					key: 'starts',
					type: 'formula',
					title: 'What it begins with',
					before: ', starting as ',
					clause: 'starting as…'
				},
				{
					...{ key: 'remembers', type: 'remembered', title: 'What it remembers' },
					...{ before: ', remembering ', clause: 'remembering…' }
				},
				{
					key: 'when',
					type: 'condition',
					title: 'Asked only when',
					before: ', asked only when ',
					clause: 'asked only when…'
				},
				{
					...{ key: 'must', type: 'condition', title: 'Must be filled when' },
					...{ before: ', must be filled when ', clause: 'must be filled when…' }
				},
				{
					...{ key: 'from', type: 'condition', title: 'From those where', through: 'column' },
					...{ before: ', from those where ', clause: 'from those where…' }
				},
				{
					...{ key: 'unless', type: 'condition', title: 'Refused unless' },
					...{ before: ', refused unless ', clause: 'refused unless…' }
				},
				{ key: 'says', type: 'text', title: 'What is said then', before: ', saying ', clause: 'saying…' }
			)
		},
		blank: {
			...{ kind: 'entry', column: null, help: '', sample: '', starts: '', remembers: null, stands: null },
			...{ when: '', must: '', unless: '', says: '', from: '', who: [] }
		}
	},
	isInner: true,
	written: ({ column }) => [column],
	check(line, around) {
		const table = around.table === undefined ? undefined : around.catalogue.tables.get(around.table)
		const column = table && findColumn(table, line.column)
		if (!table || !column) return mistake('The column that it asks for is gone.')
		if (column.computed) return mistake(`"${column.name}" is computed: nobody fills it in.`)
		return [
			...checkWhom(line, around),
			...checkFormulas(line, table, around),
			...(line.unless.trim() !== '' && line.says.trim() === ''
				? mistake('Say in words why it is refused: whoever fills it in must know what to do.')
				: [])
		]
	}
}

function checkFormulas(line: EntryLine, table: Table, around: Around): Found[] {
	const { catalogue, outer, here } = around
	const scope = { catalogue, here, me: true }
	const rows = [...(outer ? [outer] : []), table]
	const target = catalogue.tables.get(findColumn(table, line.column)?.to ?? 0)
	const conditions = [line.when, line.must, line.unless].filter(isWritten)
	const issues = [
		...conditions.flatMap((text) => checkCondition(text, { ...scope, rows }).issues),
		...(isWritten(line.starts) ? check(line.starts, { ...scope, rows }).issues : []),
		...(isWritten(line.from) && target ? checkCondition(line.from, { ...scope, rows: [...rows, target] }).issues : [])
	]
	const odd =
		isWritten(line.from) && !target ? mistake('Only what points to a row is chosen from those of a table.') : []
	return [...odd, ...issues.flatMap(({ message }) => mistake(message))]
}

function isWritten(text: string): boolean {
	return text.trim() !== ''
}
