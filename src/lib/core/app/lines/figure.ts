import { z } from 'zod'
import { check } from '../../formula/check/check.ts'
import { mistake, SCREEN_GONE, TABLE_GONE, type Found } from '../../document/findings.ts'
import { formula, id, words } from '../../document/parts.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { checkMeasured, checkRows, MEASURED_FROM, measuredParts, ROW_OPENS } from './measured.ts'
import { findColumn, type Table } from '../../model/table.ts'
import { isKept } from '../../query/kept.ts'
import { checkDay, checkKept, checkWhom, lineParts, withWhom } from './parts.ts'
import { remarkUnseen } from './unseen.ts'

export const figureSchema = z.object({
	...lineParts,
	kind: z.literal('figure'),
	/** What it counts, in words. */
	label: words,
	...measuredParts,
	/** What it should come to: a formula over no row. */
	aim: formula.default(''),
	/** Those rows that it is compared with, and what they are called: `in October`. */
	than: formula.default(''),
	called: words.default(''),
	/** The day on whose evening it is compared with itself. */
	ago: formula.default(''),
	/** The screen that a row behind it opens. */
	opens: id.nullable().default(null)
})
export type FigureLine = z.infer<typeof figureSchema>

/** One number, large, and how it stands to another. */
export const figure: LineEntry<FigureLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'figure',
			about:
				'One number made of many rows, and how it stands to an aim or to other rows; a press shows what makes it up',
			tableKey: 'table',
			parts: withWhom(
				'Figure ',
				{ key: 'label', type: 'text', title: 'what it counts' },
				' showing ',
				...MEASURED_FROM,
				{
					key: 'aim',
					type: 'formula',
					title: 'What it should come to',
					before: '; the aim is ',
					clause: 'the aim is…'
				},
				{
					...{ key: 'than', type: 'condition', title: 'Those rows that it is compared with' },
					...{ before: '; compared with those where ', clause: 'compared with those where…' }
				},
				{
					...{ key: 'called', type: 'text', title: 'What they are called, such as in October' },
					...{ before: '; which are called ', clause: 'which are called…' }
				},
				{
					...{ key: 'ago', type: 'formula', title: 'Compared with how it was on that day' },
					...{ before: '; compared with how it was on ', clause: 'compared with how it was on…' }
				},
				ROW_OPENS
			)
		},
		blank: {
			...{ kind: 'figure', label: '', measure: { of: 'count', column: null }, table: null, where: '', once: '' },
			...{ aim: '', than: '', called: '', ago: '', opens: null, who: [] }
		}
	},
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		return [
			...checkWhom(line, around),
			...(line.label.trim() === '' ? mistake('Say what the figure counts, in words.') : []),
			...checkMeasured(line, table, around),
			...checkRows(line.than, table, around),
			...checkAim(line, around),
			...checkAgo(line, table, around),
			...(line.than.trim() !== '' && line.called.trim() === ''
				? mistake('Say what the rows are called that it is compared with, such as in October.')
				: []),
			...(line.opens !== null && !around.hasScreen(line.opens) ? mistake(SCREEN_GONE) : []),
			...remarkUnseen(table, around.lines)
		]
	}
}

function checkAgo({ ago, measure, where, once }: FigureLine, table: Table, around: Around): Found[] {
	if (ago.trim() === '') return []
	const column = measure.column === null ? undefined : findColumn(table, measure.column)
	return [
		...checkDay(ago, around),
		...checkKept([where, once], table, around),
		...(column && !isKept(column)
			? mistake(`${column.name} is made of other rows. What it was on a past day is not known.`)
			: [])
	]
}

function checkAim({ aim }: FigureLine, { catalogue, here }: Around): Found[] {
	if (aim.trim() === '') return []
	const { expr, issues } = check(aim, { catalogue, rows: [], me: true, here })
	return [
		...issues.flatMap(({ message }) => mistake(message)),
		...(expr && expr.type.kind !== 'number' && expr.type.kind !== 'blank' ? mistake('The aim is no number.') : [])
	]
}
