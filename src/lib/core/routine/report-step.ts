/**
 * Sends somebody rows of a table, or how many there are of each kind, as they see them: in the message itself, and as a file
 * where that is wanted.
 */
import { z } from 'zod'
import { checkGrouping, groupingSchema } from '../sentence/check-grouping.ts'
import { checkPerson } from '../document/check-person.ts'
import { checkColumns, mistake, SCREEN_GONE, TABLE_GONE, type Found } from '../document/findings.ts'
import { formula, id, number, words } from '../document/parts.ts'
import { columnType } from '../formula/check/column-type.ts'
import { checkCondition } from '../formula/check/check.ts'
import { findColumn, type Catalogue, type Table } from '../model/table.ts'
import { ATTACHED, WHERE_NONE } from '../sentence/slots/all.ts'
import { checkWordsLater } from './check-words.ts'
import { PLAIN_STEP, scopeAt, scopeOfReader, type StepEntry } from './step-entry.ts'

export const reportStepSchema = z.object({
	id,
	kind: z.literal('report'),
	/** A formula that names a person, on the row at hand. */
	to: formula,
	table: number,
	/** Which rows; `me` is whoever gets it, `this` the row at hand. */
	where: formula,
	sort: z.array(z.object({ column: number, descending: z.boolean() })),
	/** What each row shows; where rows are counted, the columns of numbers that are added up. */
	columns: z.array(number),
	/** By which rows are counted, where they are not shown themselves. */
	by: groupingSchema.nullish(),
	/** Text with formulas in braces, on the row at hand, worked out as the recipient may see them. */
	subject: words,
	body: z.string().max(5_000),
	attached: z.enum(ATTACHED).nullish(),
	/** Whether it is sent where there is no row. */
	none: z.enum(WHERE_NONE).nullish(),
	/** The screen of the app that its link opens. */
	opens: id.nullish()
})
export type ReportStep = z.infer<typeof reportStepSchema>

export const reportStep: StepEntry<ReportStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'report',
			about: 'Sends somebody the rows that they see of a table, or counts of them; as a file as well',
			tableKey: 'table',
			parts: [
				'Report to ',
				{ key: 'to', type: 'person', title: 'a formula that names a person', isOuter: true },
				' the rows of ',
				{ key: 'table', type: 'table', title: 'a table' },
				' ',
				{ key: 'where', type: 'condition', title: 'Which rows', before: 'where ', empty: 'whatever they say' },
				', by ',
				{ key: 'sort', type: 'sorts', title: 'Order', empty: 'the order they came in' },
				', showing ',
				{ key: 'columns', type: 'columns', title: 'columns' },
				' with the message ',
				{ key: 'subject', type: 'subject', title: 'its subject', isOuter: true },
				', saying ',
				{ key: 'body', type: 'message', title: 'its words', isOuter: true, empty: 'nothing more' },
				{ key: 'by', type: 'grouping', title: 'Counted by', before: '; counted by ', clause: 'counted by…' },
				{
					...{ key: 'attached', type: 'attached', title: 'The file that comes with it' },
					...{ before: '; attached as ', clause: 'attached as a file…' }
				},
				{
					...{ key: 'none', type: 'where none', title: 'Whether it is sent where there is no row' },
					...{ before: '; also where ', clause: 'also where there are none' }
				},
				{
					...{ key: 'opens', type: 'screen', title: 'The screen that its link opens' },
					...{ before: '; it opens ', clause: 'it opens a screen…' }
				}
			]
		},
		blank: { kind: 'report', to: '', table: null, where: '', sort: [], columns: [], subject: '', body: '' }
	},
	needsRow: false,
	readsRows: true,
	check(step, around) {
		const { catalogue, table: outer, hasScreen } = around
		const table = catalogue.tables.get(step.table)
		if (!table) return mistake(TABLE_GONE)
		const which = scopeOfReader({ ...around, table, outer })
		const read = step.where.trim() === '' ? [] : checkCondition(step.where, which).issues
		const screen = step.opens ?? undefined
		return [
			...checkPerson(step.to, scopeAt(around, around.hasMe)),
			...checkShown(step, table, catalogue),
			...(step.subject.trim() === '' ? mistake('Its message has no subject yet.') : []),
			...read.flatMap(({ message }) => mistake(message)),
			...checkWordsLater([step.subject, step.body], around),
			...(screen === undefined || hasScreen(screen) ? [] : mistake(SCREEN_GONE))
		]
	}
}

function checkShown({ by, columns, attached }: ReportStep, table: Table, catalogue: Catalogue): Found[] {
	if (!by) return checkColumns(columns, table)
	const named = columns.flatMap((id) => findColumn(table, id) ?? [])
	const others = named.filter((column) => columnType(catalogue, column).kind !== 'number')
	return [
		...checkGrouping(by, table, { catalogue }),
		...(attached ? mistake('Counts stand in the message alone. Take the file off, or show the rows themselves.') : []),
		...others.flatMap(({ name }) =>
			mistake(`Where rows are counted, columns of numbers are added up, and ${name} holds none. Take it off.`)
		)
	]
}
