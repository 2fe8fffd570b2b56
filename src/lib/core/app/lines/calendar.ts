import { z } from 'zod'
import { columnType } from '../../formula/check/column-type.ts'
import { findColumn, type Table } from '../../model/table.ts'
import { nameKey } from '../../text/key.ts'
import { mistake, SCREEN_GONE, TABLE_GONE, type Found } from '../../document/findings.ts'
import { formula, id, number } from '../../document/parts.ts'
import { CALENDAR_VIEWS } from '../../schedule/shown-period.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { lineParts, withWhom, WHICH_ROWS, ONCE_CHOSEN } from './parts.ts'
import { checkShowsRows, TAP_OPENS } from './shows-rows.ts'
import type { TreeLine } from './tree.ts'

/** What the day is called on the screen that adds. */
export const DAY_GIVEN = 'day'

export const calendarSchema = z.object({
	...lineParts,
	kind: z.literal('calendar'),
	table: number,
	where: formula,
	once: formula.default(''),
	/** The day that a row stands on, or the first of several. */
	by: number,
	/** The last day that it takes. */
	until: number.nullable().default(null),
	/** What each entry shows: the first big, the others small. */
	columns: z.array(number),
	opens: id.nullable().default(null),
	/** The screen on which one is added on a day: it gets that day as `here.day`. */
	adds: id.nullable().default(null),
	/** How it stands at first; a month, if it does not say. Its reader may choose another. */
	as: z.enum(CALENDAR_VIEWS).nullable().default(null)
})
export type CalendarLine = z.infer<typeof calendarSchema> & { readonly lines: readonly TreeLine[] }

/** Rows on the days that they take, moved from one day to another. */
export const calendar: LineEntry<CalendarLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'calendar',
			about: 'Rows on their days, by month, by week or along a line of days; one is moved to another day by hand',
			tableKey: 'table',
			parts: withWhom(
				'Calendar of ',
				{ key: 'table', type: 'table', title: 'a table' },
				' ',
				WHICH_ROWS,
				ONCE_CHOSEN,
				', each on ',
				{ key: 'by', type: 'column', title: 'a date' },
				{
					...{ key: 'until', type: 'column', title: 'Its last day' },
					...{ before: ' until ', clause: 'until…' }
				},
				'; each shows ',
				{ key: 'columns', type: 'columns', title: 'columns' },
				{
					...{ key: 'as', type: 'calendar view', title: 'How it stands at first' },
					...{ before: '; at first as ', clause: 'at first as a week…' }
				},
				TAP_OPENS,
				{
					...{ key: 'adds', type: 'screen', title: 'The screen on which one is added on a day' },
					...{ before: '; a day adds on ', clause: 'a day adds on…' }
				}
			)
		},
		blank: {
			...{ kind: 'calendar', table: null, where: '', once: '', by: null, until: null, columns: [], as: null },
			...{ opens: null, adds: null, who: [], lines: [] }
		}
	},
	holds: ['mark'],
	written: ({ by, until }) => (until === null ? [by] : [by, until]),
	order: ({ table, by }) => ({ table, column: by }),
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		return [
			...checkShowsRows(line, table, around),
			...checkDay(line.by, table, around),
			...(line.until === null ? [] : checkDay(line.until, table, around)),
			...checkAdds(line, around)
		]
	}
}

/** That screen has to take the day, under the name by which it is given. */
function checkAdds({ adds }: CalendarLine, { hasScreen, heldOn }: Around): Found[] {
	if (adds === null) return []
	if (!hasScreen(adds)) return mistake(SCREEN_GONE)
	const held = heldOn(adds)?.get(nameKey(DAY_GIVEN))
	return held?.type.kind === 'date'
		? []
		: mistake(`The screen on which a day adds does not take it. Write there: Holds a date as ${DAY_GIVEN}.`)
}

function checkDay(id: number, table: Table, { catalogue }: Around): Found[] {
	const column = findColumn(table, id)
	if (!column) return mistake('A date that it goes by is gone.')
	const { kind } = columnType(catalogue, column)
	if (kind === 'date') return []
	// What is worked out has no day of the workspace's own that could be looked for.
	return kind === 'datetime' && column.type !== 'computed'
		? []
		: mistake(`${column.name} is no date, and stands on no day. Choose a column of dates, or of dates and times.`)
}
