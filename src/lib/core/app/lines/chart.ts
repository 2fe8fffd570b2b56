import { z } from 'zod'
import { ARRANGEMENTS, type Arrangement } from '../../sentence/slots/measure.ts'
import { checkGrouping, groupingSchema } from '../../sentence/check-grouping.ts'
import { mistake, SCREEN_GONE, TABLE_GONE, type Found } from '../../document/findings.ts'
import { checkHeldName } from '../../sentence/held-kind.ts'
import { id, words } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkMeasured, MEASURED_FROM, measuredParts, ROW_OPENS, TITLE_OVER } from './measured.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'
import { remarkUnseen } from './unseen.ts'

export const chartSchema = z.object({
	...lineParts,
	kind: z.literal('chart'),
	...measuredParts,
	/** What stands under the columns. */
	by: groupingSchema.nullable(),
	/** What each is parted by. */
	parted: groupingSchema.nullable().default(null),
	as: z.enum(ARRANGEMENTS).nullable().default(null),
	/** Over it; what it measures, where it is blank. */
	title: words.default(''),
	/** What the pressed column is called for the other lines of the screen: `here.month`; of a period its first day. */
	holds: words.default(''),
	/** The screen that a row behind it opens. */
	opens: id.nullable().default(null)
})
export type ChartLine = z.infer<typeof chartSchema>

/** Many rows measured by one column or by two. */
export const chart: LineEntry<ChartLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'chart',
			about:
				'Many rows measured by a column or two, such as inspections by month and verdict; its table is one press away',
			tableKey: 'table',
			parts: withWhom(
				'Chart of ',
				...MEASURED_FROM,
				', by ',
				{ key: 'by', type: 'grouping', title: 'a column' },
				{ key: 'parted', type: 'grouping', title: 'Each parted by', before: ', parted by ', clause: 'parted by…' },
				{ key: 'as', type: 'arrangement', title: 'How the parts stand', before: '; shown ', clause: 'shown as lines…' },
				TITLE_OVER,
				{
					...{ key: 'holds', type: 'text', title: 'What the pressed column is called here' },
					...{ before: '; a press sets ', clause: 'a press sets…' }
				},
				ROW_OPENS
			)
		},
		blank: {
			...{ kind: 'chart', measure: { of: 'count', column: null }, table: null, where: '', once: '', by: null },
			...{ parted: null, as: null, title: '', holds: '', opens: null, who: [] }
		}
	},
	chooses: ({ holds, table, by }) =>
		holds === '' || by === null ? undefined : { name: holds, kind: { table, column: by.column } },
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		const { by, parted } = line
		return [
			...checkWhom(line, around),
			...checkMeasured(line, table, around),
			...(by === null ? mistake('Say by which column it goes.') : checkGrouping(by, table, around)),
			...(parted === null ? [] : checkGrouping(parted, table, around)),
			...checkParted(line),
			...checkDays(line),
			...(line.holds === '' ? [] : checkHeldName(line.holds)),
			...(line.opens !== null && !around.hasScreen(line.opens) ? mistake(SCREEN_GONE) : []),
			...remarkUnseen(table, around.lines)
		]
	}
}

/** Means, least and most values do not add up. */
function checkParted({ parted, as, measure }: ChartLine): Found[] {
	const addsUp = measure.of === 'count' || measure.of === 'sum'
	if (parted === null || addsUp || as === 'side by side' || as === 'as lines') return []
	return mistake(`The ${measure.of} of parts does not add up. Let them stand side by side, or as lines.`)
}

/** A calendar has one number a day. */
function checkDays({ as, by, parted, measure }: ChartLine): Found[] {
	if (as !== 'as a calendar') return []
	return [
		...(by?.step === 'days' ? [] : mistake('A calendar goes by days. Write by a date in days.')),
		...(parted === null ? [] : mistake('A calendar has one number a day, and no parts.')),
		...(measure.of === 'count' || measure.of === 'sum' ? [] : mistake('A calendar shows a count, or a sum.'))
	]
}

/** How its parts stand, where its builder says nothing. */
export function arrangementOf({ as }: Pick<ChartLine, 'as'>): Arrangement {
	return as ?? 'stacked'
}

/** The columns behind it, by which its rows are narrowed down to those of one column. */
export function columnsOfChart({ by, parted, measure }: ChartLine): number[] {
	return [by?.column, parted?.column, measure.column].filter((column) => column !== undefined && column !== null)
}
