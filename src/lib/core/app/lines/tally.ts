import { z } from 'zod'
import { mistake, TABLE_GONE, type Found } from '../../document/findings.ts'
import { formula, number, words } from '../../document/parts.ts'
import { columnType } from '../../formula/check/column-type.ts'
import { check } from '../../formula/check/check.ts'
import { printName } from '../../formula/check/rename.ts'
import { findColumn, type Column, type Table } from '../../model/table.ts'
import { TAKING_AWAY } from '../../sentence/slots/all.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const tallySchema = z.object({
	...lineParts,
	kind: z.literal('tally'),
	table: number,
	/** What is added to. */
	column: number,
	/** How much, over the row; one, where it is blank. */
	by: formula.default(''),
	less: z.enum(TAKING_AWAY).nullable().default(null),
	/** A reference of its table, where it counts not on the row that is shown but on the one that names that row: made, if it is missing. */
	of: number.nullable().default(null),
	/** By what that one is told from others of the same row: a column, and what stands there, over the row that is shown. */
	key: number.nullable().default(null),
	is: formula.default(''),
	/** What it is called; the column's name, where it is blank. */
	label: words.default('')
})
export type TallyLine = z.infer<typeof tallySchema>

export const tally: LineEntry<TallyLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'tally',
			about: 'Adds a set amount to a number of a row at a press; what two people add at once both counts',
			tableKey: 'table',
			parts: withWhom(
				'Tally that adds ',
				{ key: 'by', type: 'formula', title: 'How much it adds', empty: '1', through: 'of' },
				' to ',
				{ key: 'column', type: 'column', title: 'a column' },
				' of ',
				{ key: 'table', type: 'table', title: 'a table' },
				{
					key: 'less',
					type: 'taking away',
					title: 'Whether it takes away too',
					before: ', and ',
					clause: 'takes it away too'
				},
				{
					...{ key: 'of', type: 'column', title: 'On the row that belongs to the one shown, by its reference' },
					...{
						before: ', on the row that belongs to the one shown by ',
						clause: 'on a row that belongs to the one shown…'
					}
				},
				{ key: 'key', type: 'column', title: 'Told from others by', before: ', whose ', clause: 'whose column…' },
				{
					...{ key: 'is', type: 'formula', title: 'What stands in that column', through: 'of' },
					...{ before: ' is ', clause: 'is…' }
				},
				{ key: 'label', type: 'text', title: 'What it is called', before: ', called ', clause: 'called…' }
			)
		},
		blank: {
			kind: 'tally',
			table: null,
			column: null,
			by: '',
			less: null,
			of: null,
			key: null,
			is: '',
			label: '',
			who: []
		}
	},
	written: ({ column, of, key }) => [column, of, key].filter((each) => each !== null),
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		const column = findColumn(table, line.column)
		if (!column) return mistake('The column that it adds to is gone.')
		const shown = shownBeside(line, table, around)
		if (!shown)
			return mistake('It counts on a row that belongs to the one shown, by a reference. Choose such a column.')
		if (around.table !== undefined && around.table !== shown.id)
			return mistake('It adds to another table than the list that it stands in.')
		return [
			...checkWhom(line, around),
			...checkCounts(column, around),
			...checkAmount(line, shown, around),
			...checkKey(line, { table, shown }, around)
		]
	}
}

/** The table of the row that is shown, or that it stands on in a list. */
function shownBeside({ of }: TallyLine, table: Table, { catalogue }: Around): Table | undefined {
	return of === null ? table : catalogue.tables.get(findColumn(table, of)?.to ?? 0)
}

/** What a number comes to when so much is added or taken away: a blank counts as nothing. */
export function tallied(column: Column, amount: string, isLess: boolean): string {
	return `${printName(column.name)} ${isLess ? '-' : '+'} (${amount})`
}

/** As a formula over the row that is shown. */
export function amountOf({ by }: TallyLine): string {
	return by.trim() === '' ? '1' : by
}

function checkAmount(line: TallyLine, shown: Table, { catalogue }: Around): Found[] {
	const { expr, issues } = check(amountOf(line), { catalogue, rows: [shown], me: true })
	return [
		...issues.flatMap(({ message }) => mistake(message)),
		...(expr && expr.type.kind !== 'number' ? mistake('It adds a number; its formula gives none.') : [])
	]
}

function checkKey(
	{ of, key, is }: TallyLine,
	{ table, shown }: { readonly table: Table; readonly shown: Table },
	{ catalogue }: Around
): Found[] {
	if (key === null && is.trim() === '') return []
	if (of === null)
		return mistake('What its row is told by counts only where it is a row that belongs to the one shown.')
	const column = key === null ? undefined : findColumn(table, key)
	if (!column || is.trim() === '') return mistake('Say both: by which column its row is told, and what stands there.')
	if (column.computed) return mistake(`${column.name} is worked out from other columns, and cannot be written.`)
	return check(is, { catalogue, rows: [shown], me: true }).issues.flatMap(({ message }) => mistake(message))
}

function checkCounts(column: Column, { catalogue }: Around): Found[] {
	if (column.computed) return mistake(`${column.name} is worked out from other columns, and cannot be added to.`)
	return columnType(catalogue, column).kind === 'number'
		? []
		: mistake(`${column.name} is no number. Choose a column of numbers or money.`)
}
