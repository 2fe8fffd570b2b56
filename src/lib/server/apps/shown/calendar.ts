import type { LineOf } from '$lib/core/app/lines/all.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import type { Filter } from '$lib/core/query/filter.ts'
import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
import type { ShownDayEntry, ShownWeek } from '$lib/core/requests/shown-rows.ts'
import { addDays, isoWeek, toDayNumber, weekdayOf, WEEKDAY_NAMES } from '$lib/core/schedule/calendar.ts'
import { layOutSpans } from '$lib/core/schedule/lay-out-spans.ts'
import { keyOfDay, nameOfShown, periodHeldBy, readPeriod, type ShownPeriod } from '$lib/core/schedule/shown-period.ts'
import { dayOfCell } from '$lib/core/table/day-of-cell.ts'
import { showDate, showTimeOf } from '$lib/core/table/show-times.ts'
import { momentAt } from '../../rights/rights-of-actor.ts'
import { readRows } from '../../rows/read.ts'
import { conditionsOf } from './list.ts'
import { marksOf, marksShown, opensFor, seenColumn, seenColumns } from './rows-of-line.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

type CalendarLine = LineOf<'calendar'>

/** More in one month nobody tells apart. */
const MOST_ENTRIES = 400

export const calendar: ShownAs<CalendarLine> = {
	holdsSomething: (line, view) => datesOf(line, view) !== undefined,
	show(line, view) {
		const dates = datesOf(line, view)
		if (!dates) return []
		const { table, by } = dates
		const { standing, request, store } = view
		const { today } = momentAt(store.workspace().timeZone, request.now)
		const asked = request.held?.[periodHeldBy(line.id)] ?? ''
		const period = readPeriod(asked, { day: today, view: line.as ?? 'a month' })
		const { entries, isCut } = entriesIn(line, period, dates, view)
		// Where one goes from here by another view: to what holds today, if this does.
		const day = period.first <= today && today <= period.last ? today : period.first
		const { view: shown, key, before, after } = period
		return [
			{
				...{ id: line.id, kind: 'calendar', title: table.name, view: shown, key, before, after, entries, isCut },
				columns: seenColumns(line.columns, table, view),
				marks: marksShown(line),
				opens: opensFor(line, view),
				adds: opensFor({ opens: line.adds }, view),
				name: nameOfShown(period),
				today: keyOfDay(today, shown),
				views: {
					'a month': keyOfDay(day, 'a month'),
					'a week': keyOfDay(day, 'a week'),
					'a timeline': keyOfDay(day, 'a timeline')
				},
				weeks: period.weeks.map((days) => weekOf(days, { period, entries, today }, view)),
				canMove: standing.rights.mayPossibly('change', table, by)
			}
		]
	}
}

interface Dates {
	readonly table: Table
	readonly by: Column
	/** None where its reader does not see it: then each stands on its first day alone. */
	readonly until: Column | undefined
}

function datesOf({ table: number, by: id, until }: CalendarLine, view: View): Dates | undefined {
	const table = tableOf(view, number)
	const by = table && seenColumn(id, table, view)
	return by && { table, by, until: seenColumn(until, table, view) }
}

/** What stands on one of its days, in the order of their beginnings, the longer ones first. */
function entriesIn(
	line: CalendarLine,
	{ weeks }: ShownPeriod,
	dates: Dates,
	view: View
): { entries: ShownDayEntry[]; isCut: boolean } {
	const days = weeks.flat().filter(Boolean)
	const [first = '', last = ''] = [days[0], days.at(-1)]
	const begins = readPart(line, [...on(dates.by, 'at least', first), ...on(dates.by, 'at most', last)], dates, view)
	const { until } = dates
	const dayBefore = addDays(first, -1)
	const goesOn =
		until && dayBefore
			? readPart(line, [...on(dates.by, 'at most', dayBefore), ...on(until, 'at least', first)], dates, view)
			: []
	const all = [...goesOn, ...begins].flatMap((row) => entryOf(row, dates, view) ?? [])
	const inOrder = all.toSorted(
		(a, b) => compare(a.from, b.from) || compare(b.to, a.to) || compare(a.at, b.at) || compare(a.row.id, b.row.id)
	)
	return { entries: inOrder.slice(0, MOST_ENTRIES), isCut: all.length > MOST_ENTRIES }
}

function compare(a: string, b: string): number {
	return a < b ? -1 : a > b ? 1 : 0
}

function on({ id: column, type }: Column, is: 'at least' | 'at most', day: string): Filter[] {
	const text = type === 'date and time' ? `${day} ${is === 'at least' ? '00:00' : '23:59:59'}` : day
	return [{ column, is, text }]
}

function readPart(
	line: CalendarLine,
	filters: readonly Filter[],
	{ by, until }: Dates,
	view: View
): readonly WireRow[] {
	const { store, request, here } = view
	const asked = {
		...{ table: line.table, columns: [...line.columns, by.id, ...(until ? [until.id] : [])] },
		...{ where: conditionsOf(line, here), here, limit: MOST_ENTRIES + 1, filters },
		flags: marksOf(line).map(({ where }) => where),
		sort: { column: by.id, descending: false }
	}
	return readRows(store, request.actor, asked, request.now).rows
}

/** Undefined where its day is kept back. */
function entryOf(row: WireRow, { by, until }: Dates, { store }: View): ShownDayEntry | undefined {
	const { timeZone, writing } = store.workspace()
	const dayIn = (column: Column) => dayOfCell(row.cells[cellKey(column.id)], column, timeZone)
	const from = dayIn(by)
	if (from === undefined) return undefined
	const to = (until && dayIn(until)) ?? from
	const at = by.type === 'date and time' ? showTimeOf(String(row.cells[cellKey(by.id)]), timeZone, writing) : ''
	const days = to > from ? [from, to] : [from]
	const says = days.map((day) => showDate(day, writing)).join(' until ')
	// What ends before it begins takes its first day.
	return { row, from, to: to < from ? from : to, says, at }
}

interface Shown {
	readonly period: ShownPeriod
	readonly entries: readonly ShownDayEntry[]
	readonly today: string
}

function weekOf(days: readonly string[], { period, entries, today }: Shown, { store }: View): ShownWeek {
	const { writing } = store.workspace()
	const held = days.filter(Boolean)
	const first = held[0] ?? period.first
	return {
		number: isoWeek(first).week,
		key: keyOfDay(first, 'a week'),
		spans: layOutSpans(entries, held),
		days: held.map((date) => ({
			date,
			says: `${WEEKDAY_NAMES[weekdayOf(toDayNumber(date))]}, ${showDate(date, writing)}`,
			isInside: period.first <= date && date <= period.last,
			isToday: date === today
		}))
	}
}
